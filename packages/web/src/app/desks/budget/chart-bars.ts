import type { HeldFigure } from '@stravel/core';
import type { Measure } from '../../bakes/core-bands';
import type { FigureMark } from '../../bakes/figure-mark';
import type { BudgetCell, LevelRow, SetRow } from './budget-rows';

/** One place of the chart: a level, or a set that stands for its levels by the worst of each device. */
export interface ChartSlot {
  readonly id: string;
  /** Under the bar. */
  readonly tick: string;
  readonly name: string;
  readonly isSet: boolean;
  /** By device as compared. */
  readonly bars: readonly ChartBar[];
}

export interface ChartBar {
  /** Of the device's own limit; undefined when nothing is known. */
  readonly share: number | undefined;
  readonly mark: FigureMark;
  readonly text: string;
}

/** Slots of one set, side by side. */
export interface ChartGroup {
  readonly id: string;
  readonly name: string;
  readonly slots: readonly ChartSlot[];
}

/** More levels than this and a set has one bar, until it is opened. */
export const MAX_LEVEL_BARS = 60;

/** What the chart shows, in order of play: a bar a level and device, or a bar a set where there are too many. @param openSet its levels are shown all the same */
export function chartGroups(sets: readonly SetRow[], measure: Measure, openSet: string): ChartGroup[] {
  const count = sets.reduce((sum, { levels }) => sum + levels.length, 0);
  return sets.map((set) => ({
    id: set.id,
    name: set.name,
    slots:
      count <= MAX_LEVEL_BARS || set.id === openSet
        ? [...set.levels].sort(byNumber).map((row) => levelSlot(row, measure))
        : [setSlot(set, measure)],
  }));
}

/** Levels without a number come last. */
function byNumber(a: LevelRow, b: LevelRow): number {
  const of = ({ number }: LevelRow): number => (number === '·' ? Infinity : Number(number));
  return of(a) === of(b) ? 0 : of(a) - of(b);
}

function levelSlot(row: LevelRow, measure: Measure): ChartSlot {
  return {
    id: row.id,
    tick: row.number,
    name: row.level.name,
    isSet: false,
    bars: row.cells.flatMap((cells) => cells.filter((cell) => cell.measure === measure).map(barOf)),
  };
}

/** The largest that is known of its levels; not known where nothing is. */
function setSlot(set: SetRow, measure: Measure): ChartSlot {
  const devices = set.levels[0].cells.length;
  const worst = Array.from({ length: devices }, (_, device) => {
    const cells = set.levels.flatMap((row) => row.cells[device].filter((cell) => cell.measure === measure));
    return cells.reduce((most, cell) => (shareOf(cell.held) > shareOf(most.held) ? cell : most));
  });
  return {
    id: set.id,
    tick: String(set.levels.length),
    name: `${set.name}: worst level`,
    isSet: true,
    bars: worst.map(barOf),
  };
}

function shareOf({ share }: HeldFigure): number {
  return share ?? -1;
}

function barOf({ held, mark, label }: BudgetCell): ChartBar {
  return { share: held.share, mark, text: label };
}
