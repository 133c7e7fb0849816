import {
  RECORDS_DOCUMENT,
  compareOrdered,
  freeKey,
  heldAt,
  ordersBetween,
  patchId,
  patchedContent,
  takenKeys,
  type Level,
  type Operation,
  type RecordTables,
  type Stratum,
  type StratumContent,
} from '@stravel/core';
import { copiedItems } from '../../../edits/copied-items';
import { create, newId, setRecordField } from '../../../edits/operations';
import { levelsOfSet } from '../level-edits';

/** What becomes of a stratum when its level is used again. */
export const STRATUM_CHOICES = ['share', 'copy', 'leave out'] as const;
export type StratumChoice = (typeof STRATUM_CHOICES)[number];

/** What becomes of each stratum, by its id. */
export type StratumChoices = ReadonlyMap<string, StratumChoice>;

/** A stratum of levels that are used again. */
export interface ReusedStratum {
  readonly stratum: Stratum;
  /** Names of all levels in whose stack it stands now. */
  readonly reach: readonly string[];
  /** Names of the levels from which it is taken. */
  readonly from: readonly string[];
}

/** The strata of some levels, each once, in the order of the stacks. */
export function strataOf(tables: Pick<RecordTables, 'level' | 'stratum'>, levels: readonly Level[]): ReusedStratum[] {
  const ids = new Set(levels.flatMap(({ strata }) => strata.map(({ stratum }) => stratum)));
  const all = Object.values(tables.level).filter(({ binned }) => binned === null);
  return [...ids].flatMap((id) => {
    if (!Object.hasOwn(tables.stratum, id)) return [];
    const stacks = ({ strata }: Level): boolean => strata.some(({ stratum }) => stratum === id);
    const names = (some: readonly Level[]): string[] => some.filter(stacks).map(({ name }) => name);
    return [{ stratum: tables.stratum[id], reach: names(all), from: names(levels) }];
  });
}

/** What one would most likely want: what is shared stays shared, what a level owns is copied. */
export function usualChoices(strata: readonly ReusedStratum[]): StratumChoices {
  return new Map(strata.map(({ stratum }) => [stratum.id, stratum.owner === null ? 'share' : 'copy']));
}

/** Which levels will share what, one line for each stratum that is shared. */
export function sharingText(
  strata: readonly ReusedStratum[],
  choices: StratumChoices,
  nameOf: (level: string) => string,
): string[] {
  return strata
    .filter(({ stratum }) => choices.get(stratum.id) === 'share')
    .map(({ stratum, reach, from }) => {
      const together = [...new Set([...reach, ...from.map(nameOf)])];
      return `${stratum.name}: ${together.join(', ')}${stratum.owner === null ? '' : '; no level owns it alone any more'}`;
    });
}

export interface ReuseRequest {
  readonly choices: StratumChoices;
  readonly nameOf: (level: Level) => string;
  /** Set to whose end the new levels go; undefined: each behind its original. */
  readonly set?: string;
}

/**
 * New levels made of others. What is shared stands in both stacks, and a stratum that one level owned becomes shared; what is
 * copied comes with its content. What the original has otherwise in a shared stratum, its copy has otherwise too. The new levels have no code, as a code is used once, and no place in the order of play yet.
 */
export function reuseLevels(
  tables: RecordTables,
  levels: readonly Level[],
  { choices, nameOf, set }: ReuseRequest,
  content: (stratum: string) => StratumContent,
): { copies: Level[]; operations: Operation[] } {
  const operations: Operation[] = [];
  const shared = new Set<string>();
  const ends =
    set === undefined ? [] : ordersBetween(levelsOfSet(tables, set).at(-1)?.order ?? null, null, levels.length);
  const keys = takenKeys(tables);
  const copies = levels.map((level, i) => {
    const id = newId();
    const name = nameOf(level);
    const key = freeKey(name, 'level', Object.keys(tables.level).length + i + 1, keys);
    keys.add(key);
    const made: [string, Stratum][] = [];
    const strata = level.strata.flatMap((entry) => {
      const stratum = heldAt(tables.stratum, entry.stratum);
      const choice = choices.get(entry.stratum) ?? 'share';
      if (choice === 'leave out') return [];
      if (!stratum || choice === 'share') {
        if (stratum && stratum.owner !== null) shared.add(stratum.id);
        return [entry];
      }
      const copy: Stratum = { ...stratum, id: newId(), owner: id };
      made.push([stratum.id, copy]);
      return [{ ...entry, stratum: copy.id }];
    });
    const copy: Level = {
      ...level,
      id,
      set: set ?? level.set,
      order: ends[i] ?? orderBehind(tables, level),
      name,
      key,
      code: '',
      strata,
    };
    operations.push(create(RECORDS_DOCUMENT, 'level', copy));
    for (const [original, stratum] of made) {
      operations.push(create(RECORDS_DOCUMENT, 'stratum', stratum));
      operations.push(...copiedItems(stratum.id, patchedContent(content(original), level.id)).operations);
    }
    for (const { stratum } of strata) operations.push(...patchesFor(id, level.id, stratum, content(stratum)));
    return copy;
  });
  operations.push(...[...shared].sort().map((id) => setRecordField('stratum', tables.stratum[id], 'owner', null)));
  return { copies, operations };
}

/** What a level has otherwise in a stratum that it shares, for another level too. */
function patchesFor(level: string, original: string, stratum: string, content: StratumContent): Operation[] {
  return content.patch
    .filter((patch) => patch.level === original)
    .map((patch) => create(stratum, 'patch', { ...patch, id: patchId(level, patch.target), level }));
}

function orderBehind(tables: Pick<RecordTables, 'level' | 'set'>, level: Level): string {
  const siblings = [...levelsOfSet(tables, level.set)].sort(compareOrdered);
  const next = siblings.at(siblings.findIndex(({ id }) => id === level.id) + 1);
  return ordersBetween(level.order, next?.order ?? null)[0];
}
