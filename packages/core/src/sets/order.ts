import { generateNKeysBetween } from 'fractional-indexing';
import type { Level } from '../model/level';
import type { LevelSet } from '../model/level-set';
import { compareOrdered } from '../model/ordered';
import type { RecordTables } from '../model/records';
import { addToList } from './list-map';

/** Sort keys for `count` newcomers between two neighbours (null at an end). */
export function ordersBetween(before: string | null, after: string | null, count = 1): string[] {
  return generateNKeysBetween(before, after, count);
}

/** A set with what stands in it, in order. */
export interface SetNode {
  readonly set: LevelSet;
  /** 0 at the top. */
  readonly depth: number;
  readonly sets: readonly SetNode[];
  readonly levels: readonly Level[];
}

/** The tree of the sets in use; binned sets and levels, and what stands under a binned set, are left out. */
export function setTree(tables: Pick<RecordTables, 'set' | 'level'>): SetNode[] {
  const children = new Map<string | null, LevelSet[]>();
  for (const set of Object.values(tables.set)) {
    if (set.binned === null) addToList(children, set.parent, set);
  }
  const levels = new Map<string | null, Level[]>();
  for (const level of Object.values(tables.level)) {
    if (level.binned === null) addToList(levels, level.set, level);
  }
  const visited = new Set<string>();
  const build = (parent: string | null, depth: number): SetNode[] =>
    (children.get(parent) ?? []).sort(compareOrdered).flatMap((set) => {
      if (visited.has(set.id)) return [];
      visited.add(set.id);
      return [{ set, depth, sets: build(set.id, depth + 1), levels: (levels.get(set.id) ?? []).sort(compareOrdered) }];
    });
  return build(null, 0);
}

/** All levels in use in order of play: down the tree, a set's own levels before those of the sets inside it. */
export function levelsInOrder(tables: Pick<RecordTables, 'set' | 'level'>): Level[] {
  return setTree(tables).flatMap(levelsUnder);
}

/** All levels of a set in order of play: its own before those of the sets inside it. */
export function levelsUnder({ levels, sets }: SetNode): Level[] {
  return [...levels, ...sets.flatMap(levelsUnder)];
}

/** Numbers of the play levels from 1, by id. */
export function playNumbers(levels: readonly Level[]): Map<string, number> {
  return new Map(levels.filter((level) => level.purpose === 'play').map((level, i) => [level.id, i + 1]));
}
