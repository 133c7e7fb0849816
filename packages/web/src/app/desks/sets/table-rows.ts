import type { Field, FieldType, Level, LevelSet, Purpose, SetNode } from '@stravel/core';

/** One line of the table: a set or a level. */
export type TableRow =
  | { readonly kind: 'set'; readonly id: string; readonly set: LevelSet; readonly depth: number; readonly rank: string; readonly count: number; readonly folded: boolean }
  | { readonly kind: 'level'; readonly id: string; readonly level: Level; readonly depth: number; readonly number: string };

/** One column of the table; `path` is the level's field it edits. */
export interface TableColumn {
  readonly id: string;
  readonly name: string;
  readonly path: string;
  readonly type: FieldType;
  readonly choices: readonly string[];
  readonly width: string;
}

/** The columns that every collection has, then its own fields. */
export function tableColumns(fields: readonly Field[], purposes: readonly Purpose[]): TableColumn[] {
  return [
    { id: 'name', name: 'Level', path: 'name', type: 'text', choices: [], width: 'minmax(150px, 1.6fr)' },
    { id: 'purpose', name: 'Purpose', path: 'purpose', type: 'choice', choices: purposes, width: '76px' },
    { id: 'code', name: 'Code', path: 'code', type: 'text', choices: [], width: '84px' },
    ...fields.map((field) => ({
      id: field.id,
      name: field.name,
      path: `values.${field.key}`,
      type: field.type,
      choices: field.choices,
      width: field.type === 'text' ? 'minmax(90px, 1fr)' : field.type === 'number' || field.type === 'yes/no' ? '72px' : '104px',
    })),
  ];
}

/** What a cell holds. */
export function cellValue(level: Level, column: TableColumn): string | number | boolean | null {
  if (column.path.startsWith('values.')) return level.values[column.path.slice(7)] ?? null;
  return level[column.path as 'name' | 'purpose' | 'code'];
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
    const count = levels.length + below.filter((row) => row.kind === 'level').length;
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
    const own = levels.map((level): TableRow => ({ kind: 'level', id: level.id, level, depth: node.depth + 1, number: String(numbers.get(level.id) ?? '·') }));
    return [head, ...own, ...below];
  });
}

function countLevels(node: SetNode): number {
  return node.levels.length + node.sets.reduce((sum, inner) => sum + countLevels(inner), 0);
}
