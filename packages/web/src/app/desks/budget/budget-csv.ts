import type { Device } from '@stravel/core';
import { MEASURES, type columnUnits } from '../../bakes/core-bands';
import type { SetRow } from './budget-rows';

/**
 * The table of levels as rows of a file: its figures in the units of the columns with all their digits, each followed by how far it
 * can be trusted. What is not known is empty and says so.
 */
export function budgetCsvRows(
  sets: readonly SetRow[],
  devices: readonly Device[],
  units: ReturnType<typeof columnUnits>,
): string[][] {
  const header = devices.flatMap(({ name }) =>
    MEASURES.flatMap((measure) => {
      const unit = units[measure].name;
      return [
        `${name}: ${measure}${unit === '' ? '' : `, ${unit}`}`,
        `${name}: ${measure}, state`,
        `${name}: ${measure}, share of limit`,
      ];
    }),
  );
  const rows = sets.flatMap(({ name, levels }) =>
    levels.map(({ number, level, bakes, cells }) => [
      name,
      number,
      level.name,
      bakes,
      ...cells.flatMap((ofDevice) =>
        MEASURES.flatMap((measure) => {
          const cell = ofDevice.find((one) => one.measure === measure);
          const { value, share } = cell?.held ?? {};
          return [
            value === undefined ? '' : String(value / units[measure].size),
            cell?.mark ?? 'not known',
            share === undefined ? '' : String(share),
          ];
        }),
      ),
    ]),
  );
  return [['Set', 'No.', 'Level', 'Bakes', ...header], ...rows];
}
