import { counted } from '../counted';
import type { Field } from '../model/field';
import type { Level } from '../model/level';
import type { ReadinessRules } from '../model/readiness';
import { isEmptyValue, valueOf } from './field-tables';

/** What is known of a level beyond its record. */
export interface ReadinessFacts {
  /** Whether all its bakes agree with what stands. */
  readonly isFresh: boolean;
  /** Markers by kind; null while nothing has counted them. */
  readonly markers: Readonly<Record<string, number>> | null;
  readonly errors: number;
  readonly codeIsTaken: boolean;
  /** Names of the devices asked for on which it is over budget, or that nothing was held against yet. */
  readonly overOn: readonly string[];
}

/** What keeps a level from being ready, in words; empty when it is ready. */
export function readinessFaults(
  level: Level,
  rules: ReadinessRules,
  fields: Readonly<Record<string, Field>>,
  facts: ReadinessFacts,
): string[] {
  const faults: string[] = [];
  for (const id of rules.fields) {
    // A field that is gone asks nothing any more.
    if (!Object.hasOwn(fields, id)) continue;
    if (isEmptyValue(valueOf(level, fields[id]))) faults.push(`no ${fields[id].name}`);
  }
  for (const kind of ['spawn', 'exit'] as const)
    if (rules[kind] && !((facts.markers?.[kind] ?? 0) > 0))
      faults.push(facts.markers ? `no ${kind}` : `${kind} not counted yet`);
  if (rules.code && level.code === '') faults.push('no code');
  if (rules.code && facts.codeIsTaken) faults.push('its code is used twice');
  if (rules.bakes && !facts.isFresh) faults.push(level.strata.length === 0 ? 'nothing to bake' : 'bakes stale');
  if (rules.findings && facts.errors > 0) faults.push(counted(facts.errors, 'error'));
  for (const device of facts.overOn) faults.push(`not within budget on ${device}`);
  return faults;
}
