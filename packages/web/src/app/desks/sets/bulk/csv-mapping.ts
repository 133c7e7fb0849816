import { tableRowsText, writeCsv, type CellColumn, type RecordTables } from '@stravel/core';
import { saveCsv } from '../../../ui/save-file';

/** What a column of a file may be written into; 'id' only finds, 'set' is where a level stands. */
export interface MappingTarget {
  readonly key: string;
  readonly name: string;
  readonly column: CellColumn | 'id' | 'set';
}

/** All that columns of a file can be written into. */
export function mappingTargets(columns: readonly CellColumn[], hasSets: boolean): MappingTarget[] {
  return [
    { key: 'id', name: 'id', column: 'id' },
    ...(hasSets ? [{ key: 'set', name: 'Set', column: 'set' } as const] : []),
    ...columns
      .filter(({ field }) => !field.figure)
      .map((column): MappingTarget => ({ key: column.path, name: column.field.name, column })),
  ];
}

/** Guesses by the header's words; '' for what matches nothing. Nothing is written into twice. */
export function guessMapping(header: readonly string[], targets: readonly MappingTarget[]): string[] {
  const used = new Set<string>();
  return header.map((word) => {
    const wanted = word.trim().toLowerCase();
    const target = targets.find(
      ({ key, name }) =>
        !used.has(key) && [name.toLowerCase(), key.replace('values.', '').toLowerCase()].includes(wanted),
    );
    if (target) used.add(target.key);
    return target?.key ?? '';
  });
}

/** Gives a table to the person as a CSV file. */
export function downloadCsv(
  tables: RecordTables,
  register: string | null,
  columns: readonly CellColumn[],
  fileName: string,
): void {
  saveCsv(fileName, writeCsv(tableRowsText(tables, register, columns)));
}
