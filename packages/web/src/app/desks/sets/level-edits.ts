import {
  RECORDS_DOCUMENT,
  compareOrdered,
  newLevelRecord,
  ordersBetween,
  type Level,
  type LevelSet,
  type Operation,
  type RecordTables,
} from '@stravel/core';
import { create, newId, setRecordField } from '../../edits/operations';

type Tables = Pick<RecordTables, 'level' | 'set'>;

/** Levels in use of a set, in order. */
export function levelsOfSet(tables: Tables, set: string): Level[] {
  return Object.values(tables.level)
    .filter((level) => level.set === set && level.binned === null)
    .sort(compareOrdered);
}

/** Sets in use under another (null: at the top), in order. */
export function setsUnder(tables: Tables, parent: string | null): LevelSet[] {
  return Object.values(tables.set)
    .filter((set) => set.parent === parent && set.binned === null)
    .sort(compareOrdered);
}

/** A new level at the end of a set. */
export function newLevel(
  tables: Tables & Pick<RecordTables, 'field' | 'kit'>,
  set: string,
  name: string,
): { level: Level; operations: Operation[] } {
  const level = newLevelRecord(tables, set, name, newId());
  return { level, operations: [create(RECORDS_DOCUMENT, 'level', level)] };
}

/** A new set at the end of those under a parent. */
export function newSet(
  tables: Tables,
  parent: string | null,
  name: string,
): { set: LevelSet; operations: Operation[] } {
  const last = setsUnder(tables, parent).at(-1);
  const [order] = ordersBetween(last?.order ?? null, null);
  const set: LevelSet = { id: newId(), name, parent, order, binned: null };
  return { set, operations: [create(RECORDS_DOCUMENT, 'set', set)] };
}

/** Moves levels into a set, before another level there, or to its end. Their order among themselves stays. */
export function moveLevels(tables: Tables, levels: readonly Level[], set: string, before: string | null): Operation[] {
  const moving = new Set(levels.map(({ id }) => id));
  const staying = levelsOfSet(tables, set).filter(({ id }) => !moving.has(id));
  const found = before === null ? -1 : staying.findIndex(({ id }) => id === before);
  const at = found < 0 ? staying.length : found;
  const orders = ordersBetween(staying[at - 1]?.order ?? null, staying[at]?.order ?? null, levels.length);
  return levels.flatMap((level, i) => [
    ...(level.set === set ? [] : [setRecordField('level', level, 'set', set)]),
    setRecordField('level', level, 'order', orders[i]),
  ]);
}

/** Moves a set one place up or down among its siblings; nothing at an end. */
export function moveSet(tables: Tables, set: LevelSet, by: 1 | -1): Operation[] {
  const siblings = setsUnder(tables, set.parent);
  const at = siblings.findIndex(({ id }) => id === set.id);
  const low = by > 0 ? siblings[at + 1] : siblings[at - 2];
  const high = by > 0 ? siblings[at + 2] : siblings[at - 1];
  if (by > 0 ? !low : !high) return [];
  const [order] = ordersBetween(low?.order ?? null, high?.order ?? null);
  return [setRecordField('set', set, 'order', order)];
}

/** Puts levels into the bin, or takes them out again (null). */
export function binLevels(levels: readonly Level[], at: string | null): Operation[] {
  return levels.map((level) => setRecordField('level', level, 'binned', at));
}

/** Puts a set, with all that stands in it, into the bin. */
export function binSet(tables: Tables, set: LevelSet, at: string): Operation[] {
  return [
    setRecordField('set', set, 'binned', at),
    ...binLevels(levelsOfSet(tables, set.id), at),
    ...setsUnder(tables, set.id).flatMap((inner) => binSet(tables, inner, at)),
  ];
}
