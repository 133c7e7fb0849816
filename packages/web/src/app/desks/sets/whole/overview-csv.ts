import type { Level } from '@stravel/core';
import type { CountMatrix } from './count-matrix';
import type { ChartedSeries } from './series';

/** A row a level: what is charted, each followed by how far it can be trusted, then what stands in it. What is not known is empty. */
export function overviewCsvRows(
  { columns, rows }: CountMatrix,
  charted: readonly ChartedSeries[],
  levels: readonly Level[],
  numberOf: (level: string) => string,
): string[][] {
  const head = charted.flatMap(({ series: { name } }) => [name, `${name}, state`]);
  return [
    ['No.', 'Level', ...head, ...columns.map(({ name }) => name)],
    ...rows.map(({ level, cells }) => {
      const at = levels.indexOf(level);
      return [
        numberOf(level.id),
        level.name,
        ...charted.flatMap(({ values, states }) =>
          Number.isNaN(values[at]) ? ['', 'not known'] : [String(values[at]), states[at]],
        ),
        ...columns.map((_column, c) => String(cells?.[c].count ?? '')),
      ];
    }),
  ];
}
