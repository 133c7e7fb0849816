import {
  outliers,
  type Device,
  type Field,
  type FigureOf,
  type FigureState,
  type Level,
  type LevelCosts,
} from '@stravel/core';
import { MEASURES, levelCore, measureText, type Measure } from '../../../bakes/core-bands';
import { countText } from '../../../ui/amount';
import type { FigureStateOf } from '../table-rows';

/** Something that has a number for each level. */
export interface Series {
  readonly id: string;
  readonly name: string;
  readonly format: (value: number) => string;
  /** NaN where there is none. */
  readonly valueOf: (level: Level) => number;
  /** How far that can be trusted. */
  readonly stateOf: (level: Level) => FigureState;
}

/** What fields show of levels, and how far it can be trusted. */
export interface FieldFigures {
  readonly figureOf: FigureOf;
  readonly stateOf: FigureStateOf;
}

/** A number of a series in words, with how far it can be trusted. */
export function seriesText({ format }: Pick<Series, 'format'>, value: number, state: FigureState): string {
  return state === 'bound' ? `at most ${format(value)}` : state === 'stale' ? `${format(value)}, stale` : format(value);
}

/** All that can be charted along the order of play: what the device makes of the bakes, and the levels' number fields. */
export function seriesOf(
  fields: readonly Field[],
  { figureOf, stateOf }: FieldFigures,
  costsOf: (level: string) => LevelCosts,
  device: Device | undefined,
): Series[] {
  const measured = MEASURES.flatMap((measure: Measure): Series[] =>
    device
      ? [
          {
            id: `measure ${measure}`,
            name: measure,
            format: (value) => measureText(measure, value),
            valueOf: ({ id }) => {
              const { bands } = levelCore(costsOf(id), device, measure);
              return bands.length > 0 ? bands.reduce((sum, { value }) => sum + value, 0) : NaN;
            },
            stateOf: ({ id }) => levelCore(costsOf(id), device, measure).held.state,
          },
        ]
      : [],
  );
  const numbers = fields.filter(({ type, list }) => (type === 'number' || type === 'whole number') && !list);
  return [
    ...measured,
    ...numbers.map((field): Series => ({
      id: field.id,
      name: field.name,
      format: (value) => (Number.isInteger(value) ? countText(value) : String(Number(value.toPrecision(4)))),
      valueOf: (level) => {
        const value = field.figure
          ? figureOf(level.id, field)
          : Object.hasOwn(level.values, field.key)
            ? level.values[field.key]
            : null;
        return typeof value === 'number' ? value : NaN;
      },
      stateOf: ({ id }) => stateOf(id, field),
    })),
  ];
}

/** A series along some levels, with what stands out in it. */
export interface ChartedSeries {
  readonly series: Series;
  readonly values: readonly number[];
  readonly states: readonly FigureState[];
  readonly outliers: readonly number[];
}

export function chartSeries(series: Series, levels: readonly Level[]): ChartedSeries {
  const values = levels.map((level) => series.valueOf(level));
  return { series, values, states: levels.map((level) => series.stateOf(level)), outliers: outliers(values) };
}
