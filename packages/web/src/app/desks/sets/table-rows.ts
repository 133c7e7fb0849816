import type { CoreStrip } from '../../bakes/core-strip';
import {
  counted,
  fieldText,
  levelsUnder,
  plainRecord,
  valueAt,
  type Field,
  type FieldType,
  type FieldValue,
  type FigureOf,
  type FigureState,
  type FilledRecord,
  type Level,
  type LevelSet,
  type LinkLookup,
  type Purpose,
  type SetNode,
} from '@stravel/core';

/** One line of a table: a set, or a record with values: a level or an entry. */
export type TableRow =
  | {
      readonly kind: 'set';
      readonly id: string;
      readonly set: LevelSet;
      readonly depth: number;
      readonly rank: string;
      readonly count: number;
      readonly ready: number;
      readonly folded: boolean;
    }
  | {
      readonly kind: 'group';
      readonly id: string;
      readonly name: string;
      readonly count: number;
      readonly folded: boolean;
    }
  | {
      readonly kind: 'record';
      readonly id: string;
      readonly record: FilledRecord;
      readonly depth: number;
      readonly number: string;
    };

/** One column of the table; `path` is what it edits. */
export interface TableColumn {
  readonly id: string;
  readonly name: string;
  readonly path: string;
  /** What a value must be; columns that every record has stand as fields of their own. */
  readonly field: Field;
  readonly width: string;
  /** Whether the collection defines it. */
  readonly own: boolean;
  /** Of a column that is made up from more than the record: what it holds. */
  readonly read?: (record: FilledRecord) => FieldValue;
  /** Why it holds that, in words. */
  readonly why?: (record: FilledRecord) => string;
  /** Of a column of figures: how far one can be trusted. */
  readonly state?: (record: FilledRecord) => FigureState;
  /** What a cell shows instead of what it holds. */
  readonly shown?: (record: FilledRecord) => string;
  /** Of a column of cores: what is drawn. */
  readonly strip?: (record: FilledRecord) => CoreStrip;
}

/** What the column of cores shows. */
export interface CoreColumn {
  readonly measure: string;
  readonly strip: (level: string) => CoreStrip;
  /** What it is sorted by; null for what is not known. */
  readonly value: (level: string) => number | null;
}

const fixed = (
  id: string,
  name: string,
  type: FieldType,
  choices: readonly string[],
  width: string,
  rules: Partial<Field> = {},
): TableColumn => ({
  id,
  name,
  path: id,
  field: { id, key: id, name, type, choices, order: '', ...rules },
  width,
  own: false,
});

const WIDTHS: Partial<Record<FieldType, string>> = {
  number: '72px',
  'whole number': '72px',
  'yes/no': '72px',
  date: '104px',
  colour: '92px',
  choice: '104px',
  point: '110px',
};

const columnOf = (field: Field): TableColumn => ({
  id: field.id,
  name: field.name,
  path: `values.${field.key}`,
  field,
  width: (field.list ? undefined : WIDTHS[field.type]) ?? 'minmax(84px, 1fr)',
  own: true,
});

/** Whether a column is shown and never written. */
export function isReadOnly(column: Pick<TableColumn, 'field' | 'read'>): boolean {
  return Boolean(column.field.figure) || column.read !== undefined;
}

/** What keeps a level from being ready; nothing when it is. */
export type FaultsOf = (level: string) => readonly string[];
/** How far the figure that a field shows of a level can be trusted. */
export type FigureStateOf = (level: string, field: Pick<Field, 'figure'>) => FigureState;
/** What is to be known of a figure that is not simply so. */
const FIGURE_NOTES: Readonly<Record<FigureState, string>> = {
  known: '',
  bound:
    'All of the level. It is cut into cells, so that less than this is there at one time; a rehearsal on Cells tells how much.',
  stale: 'Counted before the level was changed last: bake it again on the Budget desk.',
  'not known': '',
};
const READINESS = ['ready', 'not ready'] as const;

/** The columns that every collection's levels have, then its own fields. */
export function levelColumns(
  fields: readonly Field[],
  purposes: readonly Purpose[],
  faultsOf: FaultsOf = () => [],
  stateOf: FigureStateOf = () => 'known',
  core?: CoreColumn,
): TableColumn[] {
  return [
    fixed('name', 'Level', 'text', [], 'minmax(160px, 1.6fr)', { required: true }),
    ...(core
      ? [
          {
            ...fixed('core', core.measure.charAt(0).toUpperCase() + core.measure.slice(1), 'number', [], '108px'),
            read: ({ id }: FilledRecord) => core.value(id),
            strip: ({ id }: FilledRecord) => core.strip(id),
          },
        ]
      : []),
    fixed('purpose', 'Purpose', 'choice', purposes, '76px', { required: true }),
    fixed('code', 'Code', 'text', [], '84px'),
    {
      ...fixed('ready', 'Ready', 'choice', READINESS, '116px'),
      read: ({ id }) => READINESS[faultsOf(id).length === 0 ? 0 : 1],
      why: ({ id }) => faultsOf(id).join(' · '),
      // The first reason says more than that there is one.
      shown: ({ id }) => faultsOf(id).at(0) ?? READINESS[0],
    },
    fixed('key', 'Key', 'text', [], '120px', {
      required: true,
      pattern: '[a-z0-9]+(-[a-z0-9]+)*',
      help: 'Addresses and files use it. It stays when the level is renamed.',
    }),
    ...fields.map((field) => {
      const column = columnOf(field);
      if (!field.figure) return column;
      const state = ({ id }: FilledRecord): FigureState => stateOf(id, field);
      return { ...column, state, why: (record: FilledRecord) => FIGURE_NOTES[state(record)] };
    }),
  ];
}

/** The columns of a register's entries. */
export function entryColumns(fields: readonly Field[]): TableColumn[] {
  return [fixed('name', 'Entry', 'text', [], 'minmax(150px, 1.2fr)', { required: true }), ...fields.map(columnOf)];
}

/** What a cell holds. */
export function cellValue(record: FilledRecord, { path, field, read }: TableColumn, figureOf: FigureOf): FieldValue {
  if (read) return read(record);
  if (field.figure) return figureOf(record.id, field);
  if (path.startsWith('values.')) return Object.hasOwn(record.values, field.key) ? record.values[field.key] : null;
  const value = valueAt(plainRecord<FilledRecord>(record), path);
  return typeof value === 'string' ? value : null;
}

/** What a cell shows. */
export function cellText(value: FieldValue, { field }: TableColumn, links: LinkLookup): string {
  if (value === null || value === '') return '—';
  if (field.type === 'picture') return Array.isArray(value) ? counted(value.length, 'picture') : 'picture';
  if (field.figure && typeof value === 'number') return value.toLocaleString('en').replaceAll(',', '\u2009');
  return fieldText(field, value, links).replaceAll('\n', ' · ') || '—';
}

/**
 * The lines of the table from the tree of sets. While a filter is on, sets without a hit are left out and folding is
 * ignored.
 */
export function tableRows(
  tree: readonly SetNode[],
  ranks: readonly string[],
  numbers: ReadonlyMap<string, number>,
  folded: ReadonlySet<string>,
  wanted: ((level: Level) => boolean) | undefined,
  faultsOf: FaultsOf = () => [],
): TableRow[] {
  return tree.flatMap((node) => {
    const levels = wanted ? node.levels.filter(wanted) : node.levels;
    const below = tableRows(node.sets, ranks, numbers, folded, wanted, faultsOf);
    const count = levels.length + below.filter((row) => row.kind === 'record').length;
    if (wanted && count === 0) return [];
    const readyOf = (some: readonly Level[]): number =>
      some.reduce((sum, { id }) => sum + (faultsOf(id).length === 0 ? 1 : 0), 0);
    const isFolded = !wanted && folded.has(node.set.id);
    const head: TableRow = {
      kind: 'set',
      id: node.set.id,
      set: node.set,
      depth: node.depth,
      rank: ranks[node.depth] ?? 'Set',
      count: isFolded ? levelsUnder(node).length : count,
      ready:
        readyOf(levels) +
        below.reduce((sum, row) => sum + (row.kind === 'set' && row.depth === node.depth + 1 ? row.ready : 0), 0),
      folded: isFolded,
    };
    if (isFolded) return [head];
    const own = levels.map((record): TableRow => ({
      kind: 'record',
      id: record.id,
      record,
      depth: node.depth + 1,
      number: String(numbers.get(record.id) ?? '·'),
    }));
    return [head, ...own, ...below];
  });
}

/** Records in lines; gathered under what they hold in a column, groups in the order in which they first come, what holds nothing last. */
export function plainRows<T extends FilledRecord>(
  records: readonly T[],
  numberOf: (record: T) => string,
  groupOf: ((record: T) => string) | undefined,
  folded: ReadonlySet<string>,
): TableRow[] {
  const row = (record: T, depth: number): TableRow => ({
    kind: 'record',
    id: record.id,
    record,
    depth,
    number: numberOf(record),
  });
  if (!groupOf) return records.map((record) => row(record, 0));
  const groups = new Map<string, T[]>();
  for (const record of records) {
    const name = groupOf(record);
    const group = groups.get(name);
    if (group) group.push(record);
    else groups.set(name, [record]);
  }
  const filled = [...groups].filter(([name]) => name !== '');
  return [...filled, ...[...groups].filter(([name]) => name === '')].flatMap(([name, members]): TableRow[] => {
    const id = `group ${name}`;
    const head: TableRow = {
      kind: 'group',
      id,
      name: name === '' ? 'nothing' : name,
      count: members.length,
      folded: folded.has(id),
    };
    return [head, ...(head.folded ? [] : members.map((record) => row(record, 1)))];
  });
}
