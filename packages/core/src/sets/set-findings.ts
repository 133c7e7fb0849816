import { originFindings } from '../detail/origin-findings';
import { finding, type Finding } from '../findings';
import type { RecordTables } from '../model/records';
import { fieldFindings } from './field-findings';
import { levelsInOrder } from './order';
import { checkUnlocking } from './unlock-check';
import { unlockModel, type FigureOf, type UnlockModel } from './unlock-model';

/**
 * What is wrong with the collection as data: codes used twice, strata that are gone, values that do not fit their fields,
 * pieces whose origin has moved, rules by which levels cannot open.
 * @param orderFindings checks the order of play; takes up to some seconds, so that a caller may keep what it said of an equal model
 */
export function setFindings(
  tables: RecordTables,
  figureOf?: FigureOf,
  orderFindings: (model: UnlockModel) => readonly Finding[] = (model) => checkUnlocking(model).findings,
): Finding[] {
  const findings: Finding[] = [];
  const levels = levelsInOrder(tables);
  const byCode = new Map<string, string[]>();
  for (const level of levels) {
    if (level.code === '') continue;
    const key = level.code.toUpperCase();
    byCode.set(key, [...(byCode.get(key) ?? []), level.id]);
  }
  for (const [code, ids] of byCode) {
    if (ids.length < 2) continue;
    const names = ids.map((id) => tables.level[id].name);
    for (const id of ids.slice(1)) {
      findings.push(
        finding({
          code: 'CODE_USED_TWICE',
          desk: 'sets',
          severity: 'error',
          subject: id,
          place: { level: id },
          message: `${tables.level[id].name} has the code ${code}, as has ${names[0]}`,
          why: 'A player who types the code can reach only one of them.',
          fixes: [{ id: 'new-code', label: 'Give it a new code' }],
        }),
      );
    }
  }
  for (const level of levels) {
    for (const entry of level.strata) {
      if (tables.stratum[entry.stratum]) continue;
      findings.push(
        finding({
          code: 'STRATUM_MISSING',
          desk: 'sets',
          severity: 'error',
          subject: `${level.id}.${entry.stratum}`,
          place: { level: level.id },
          message: `${level.name} stacks the stratum ${entry.stratum}, which does not exist`,
          why: 'The level would be packed without it.',
        }),
      );
    }
  }
  return [
    ...findings,
    ...fieldFindings(tables),
    ...originFindings(tables),
    ...orderFindings(unlockModel(tables, figureOf)),
  ];
}
