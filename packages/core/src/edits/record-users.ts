import type { EditableKind, RecordTables } from '../model/records';
import { linkUses } from '../sets/links';

/** Kinds of records that others point at. */
export const USED_KINDS = [
  'set',
  'level',
  'stratum',
  'kit',
  'piece',
  'device',
  'register',
  'entry',
  'carriedValue',
] as const;
export type UsedKind = (typeof USED_KINDS)[number];

/** A record that points at another. */
export interface RecordUser {
  readonly kind: EditableKind;
  readonly id: string;
  /** What it is called, with what it belongs to: 'Evening run in Low Water'. */
  readonly name: string;
}

/**
 * The small records that would point at nothing if a record were gone, in a steady order. Content of strata is not looked
 * into: whether a piece is placed is for the content to say.
 */
export function recordUsers(tables: RecordTables, kind: UsedKind, id: string): RecordUser[] {
  return FINDERS[kind](tables, id);
}

type Finder = (tables: RecordTables, id: string) => RecordUser[];

const named = (
  kind: EditableKind,
  records: Iterable<{ readonly id: string; readonly name: string }>,
  of: (name: string) => string = (name) => name,
): RecordUser[] =>
  [...records]
    .map(({ id, name }) => ({ kind, id, name: of(name) }))
    .sort((a, b) => (a.name < b.name ? -1 : a.name > b.name ? 1 : a.id < b.id ? -1 : 1));
const all = <T>(table: Readonly<Record<string, T>>, uses: (record: T) => boolean): T[] =>
  Object.values(table).filter(uses);
const levelName = (tables: RecordTables, id: string): string =>
  Object.hasOwn(tables.level, id) ? tables.level[id].name : id;

const FINDERS: Readonly<Record<UsedKind, Finder>> = {
  set: ({ set, level, field }, id) => [
    ...named(
      'level',
      all(level, (one) => one.set === id),
      (name) => `the level ${name}`,
    ),
    ...named(
      'set',
      all(set, ({ parent }) => parent === id),
      (name) => `the set ${name}`,
    ),
    ...named(
      'field',
      all(field, ({ type, target }) => type === 'level' && target === id),
      (name) => `the field ${name}`,
    ),
  ],
  level: (tables, id) => [
    ...named(
      'stratum',
      all(tables.stratum, ({ owner }) => owner === id),
      (name) => `the stratum ${name}`,
    ),
    ...named(
      'rehearsal',
      all(tables.rehearsal, ({ level }) => level === id),
      (name) => `the walk ${name}`,
    ),
    ...all(tables.cellGrid, (grid) => grid.id === id).map((grid): RecordUser => ({
      kind: 'cellGrid',
      id: grid.id,
      name: 'its cells',
    })),
    ...all(
      tables.levelOrder,
      (order) => order.id === id || order.rules.some((rule) => rule.kind === 'after' && rule.levels.includes(id)),
    ).map((order): RecordUser => ({
      kind: 'levelOrder',
      id: order.id,
      name: order.id === id ? 'its unlock rules' : `the unlock rules of ${levelName(tables, order.id)}`,
    })),
  ],
  stratum: ({ level, stratum }, id) => [
    ...named(
      'level',
      all(level, ({ strata }) => strata.some((entry) => entry.stratum === id)),
      (name) => `the level ${name}`,
    ),
    ...named(
      'stratum',
      all(stratum, ({ assemblies }) => assemblies?.includes(id) === true),
      (name) => `${name}, in which it stands or once stood`,
    ),
  ],
  kit: ({ piece, stratum }, id) => [
    ...named(
      'piece',
      all(piece, ({ kit }) => kit === id),
      (name) => `the piece ${name}`,
    ),
    ...named(
      'stratum',
      all(stratum, ({ kit }) => kit === id),
      (name) => `the assembly ${name}`,
    ),
  ],
  piece: ({ field }, id) =>
    named(
      'field',
      all(field, ({ figure, counted }) => figure === 'placements' && counted === id),
      (name) => `the field ${name}`,
    ),
  device: (tables, id) => [
    ...all(tables.rehearsal, ({ device }) => device === id)
      .map((walk): RecordUser => ({
        kind: 'rehearsal',
        id: walk.id,
        name: `the walk ${walk.name} in ${levelName(tables, walk.level)}`,
      }))
      .sort((a, b) => (a.name < b.name ? -1 : 1)),
    ...all(tables.collection, ({ readiness }) => readiness?.devices.includes(id) === true).map(
      (settings): RecordUser => ({
        kind: 'collection',
        id: settings.id,
        name: 'the readiness rules',
      }),
    ),
  ],
  register: ({ entry, field, tableView }, id) => [
    ...named(
      'entry',
      all(entry, ({ register }) => register === id),
      (name) => `its entry ${name}`,
    ),
    ...named(
      'field',
      all(field, ({ register, target, type }) => register === id || (type === 'entry' && target === id)),
      (name) => `the field ${name}`,
    ),
    ...named(
      'tableView',
      all(tableView, ({ register }) => register === id),
      (name) => `the view ${name}`,
    ),
  ],
  entry: (tables, id) =>
    (linkUses(tables).get(id) ?? []).map(({ field, record }): RecordUser => ({
      kind: 'code' in record ? 'level' : 'entry',
      id: record.id,
      name: `${field.name} of ${record.name}`,
    })),
  carriedValue: (tables, id) =>
    all(
      tables.levelOrder,
      ({ rules, gains, resets }) =>
        resets.includes(id) ||
        gains.some(({ value }) => value === id) ||
        rules.some((rule) => rule.kind === 'value' && rule.value === id),
    ).map((order): RecordUser => ({
      kind: 'levelOrder',
      id: order.id,
      name: `the level ${levelName(tables, order.id)}`,
    })),
};
