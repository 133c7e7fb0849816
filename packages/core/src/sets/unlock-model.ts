import type { Field, FieldValue } from '../model/field';
import type { RecordTables } from '../model/records';
import type { CarriedValue, UnlockRule } from '../model/unlock';
import { fieldsOf } from './field-tables';
import { compareOrdered } from '../model/ordered';
import { levelsInOrder } from './order';

/** What a level adds to one carried value; `most` is never below `least`. */
export interface KnownGain {
  readonly least: number;
  /** The most that is known to be there to collect. */
  readonly most: number;
  /** The most that may be there, where it is not known; absent: `most`. */
  readonly bound?: number;
}

/** The most that a level may give. */
export function highestGain(gain: KnownGain | undefined): number {
  return gain ? (gain.bound ?? gain.most) : 0;
}

/** A play level as the order of play sees it. */
export interface OrderedLevel {
  readonly id: string;
  readonly name: string;
  readonly rules: readonly UnlockRule[];
  /** By id of the carried value. */
  readonly gains: ReadonlyMap<string, KnownGain>;
  readonly resets: ReadonlySet<string>;
}

/** How the levels of a collection open one another. Levels stand in order of play. */
export interface UnlockModel {
  readonly levels: readonly OrderedLevel[];
  readonly byId: ReadonlyMap<string, OrderedLevel>;
  readonly values: readonly CarriedValue[];
  /** False while no level has any rule: then there is nothing to check. */
  readonly hasRules: boolean;
}

/** Gives a figure that a field shows of a level; null while nothing has counted it. */
export type FigureOf = (level: string, field: Pick<Field, 'figure' | 'counted'>) => FieldValue;

/**
 * The order of play of the levels in use; trial and tool levels stay outside.
 * @param figureOf for gains that come from what a level holds; where it knows none, they are taken to be anything from their least up
 */
export function unlockModel(
  tables: Pick<RecordTables, 'level' | 'set' | 'levelOrder' | 'carriedValue' | 'field'>,
  figureOf: FigureOf = () => null,
): UnlockModel {
  const counted = new Map(fieldsOf(tables, null).flatMap((field) => (field.figure ? [[field.key, field]] : [])));
  const levels = levelsInOrder(tables)
    .filter(({ purpose }) => purpose === 'play')
    .map((level): OrderedLevel => {
      const order = Object.hasOwn(tables.levelOrder, level.id) ? tables.levelOrder[level.id] : undefined;
      const gains = (order?.gains ?? []).map(({ value, least, most, field }): [string, KnownGain] => {
        const figure = field ? counted.get(field) : undefined;
        const filled = figure ? figureOf(level.id, figure) : field ? level.values[field] : undefined;
        const highest = typeof filled === 'number' ? filled : field ? least : most;
        const known = { least: Math.min(least, highest), most: highest };
        // What nobody has counted yet may be any number: nothing may be ruled out by it.
        return [value, figure && filled === null ? { ...known, bound: Infinity } : known];
      });
      return {
        id: level.id,
        name: level.name,
        rules: order?.rules ?? [],
        gains: new Map(gains),
        resets: new Set(order?.resets ?? []),
      };
    });
  return {
    levels,
    byId: new Map(levels.map((level) => [level.id, level])),
    values: Object.values(tables.carriedValue).sort(compareOrdered),
    hasRules: levels.some(({ rules }) => rules.length > 0),
  };
}

/** A rule in words. */
export function ruleText(rule: UnlockRule, name: (kind: 'level' | 'value', id: string) => string): string {
  switch (rule.kind) {
    case 'start':
      return 'from the start';
    case 'code':
      return 'by its code';
    case 'value':
      return `at ${rule.least} ${name('value', rule.value)}`;
    case 'after': {
      const names = rule.levels.map((id) => name('level', id));
      if (names.length === 1) return `after ${names[0]}`;
      return `after ${rule.need === 'all' ? 'all' : 'any'} of ${names.join(', ')}`;
    }
  }
}
