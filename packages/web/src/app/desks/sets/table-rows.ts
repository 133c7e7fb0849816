import {
  fieldText,
  type Field,
  type FieldFigure,
  type FieldType,
  type FieldValue,
  type FilledRecord,
  type Level,
  type LevelSet,
  type LinkLookup,
  type Purpose,
  type SetNode,
} from '@stravel/core';

/** One line of a table: a set, or a record with values: a level or an entry. */
export type TableRow =
  | { readonly kind: 'set'; readonly id: string; readonly set: LevelSet; readonly depth: number; readonly rank: string; readonly count: number; readonly folded: boolean }
  | { readonly kind: 'record'; readonly id: string; readonly record: FilledRecord; readonly depth: number; readonly number: string };

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
}

const fixed = (id: string, name: string, type: FieldType, choices: readonly string[], width: string, rules: Partial<Field> = {}): TableColumn => ({
  id,
  name,
  path: id,
  field: { id, key: id, name, type, choices, order: '', ...rules },
  width,
  own: false,
});

const WIDTHS: Partial<Record<FieldType, string>> = { number: '72px', 'whole number': '72px', 'yes/no': '72px', date: '104px', colour: '92px', choice: '104px', point: '110px' };

const columnOf = (field: Field): TableColumn => ({
  id: field.id,
  name: field.name,
  path: `values.${field.key}`,
  field,
  width: (field.list ? undefined : WIDTHS[field.type]) ?? 'minmax(84px, 1fr)',
  own: true,
});

/** The columns that every collection's levels have, then its own fields. */
export function levelColumns(fields: readonly Field[], purposes: readonly Purpose[]): TableColumn[] {
  return [
    fixed('name', 'Level', 'text', [], 'minmax(140px, 1.6fr)', { required: true }),
    fixed('purpose', 'Purpose', 'choice', purposes, '76px', { required: true }),
    fixed('code', 'Code', 'text', [], '84px'),
    ...fields.map(columnOf),
  ];
}

/** The columns of a register's entries. */
export function entryColumns(fields: readonly Field[]): TableColumn[] {
  return [fixed('name', 'Entry', 'text', [], 'minmax(150px, 1.2fr)', { required: true }), ...fields.map(columnOf)];
}

/** Gives a figure of a level; null while nothing has counted it. */
export type FigureOf = (level: string, figure: FieldFigure) => number | null;

/** What a cell holds. */
export function cellValue(record: FilledRecord, { path, field }: TableColumn, figureOf: FigureOf): FieldValue {
  if (field.figure) return figureOf(record.id, field.figure);
  if (path.startsWith('values.')) return Object.hasOwn(record.values, field.key) ? record.values[field.key] : null;
  return (record as Level)[path as 'name' | 'purpose' | 'code'];
}

/** What a cell shows. */
export function cellText(value: FieldValue, { field }: TableColumn, links: LinkLookup): string {
  if (value === null || value === '') return '—';
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
): TableRow[] {
  return tree.flatMap((node) => {
    const levels = wanted ? node.levels.filter(wanted) : node.levels;
    const below = tableRows(node.sets, ranks, numbers, folded, wanted);
    const count = levels.length + below.filter((row) => row.kind === 'record').length;
    if (wanted && count === 0) return [];
    const isFolded = !wanted && folded.has(node.set.id);
    const head: TableRow = {
      kind: 'set',
      id: node.set.id,
      set: node.set,
      depth: node.depth,
      rank: ranks[node.depth] ?? 'Set',
      count: isFolded ? countLevels(node) : count,
      folded: isFolded,
    };
    if (isFolded) return [head];
    const own = levels.map((record): TableRow => ({ kind: 'record', id: record.id, record, depth: node.depth + 1, number: String(numbers.get(record.id) ?? '·') }));
    return [head, ...own, ...below];
  });
}

function countLevels(node: SetNode): number {
  return node.levels.length + node.sets.reduce((sum, inner) => sum + countLevels(inner), 0);
}
