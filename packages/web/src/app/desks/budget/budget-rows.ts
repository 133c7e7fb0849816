import {
  byKey,
  holdAgainst,
  levelsUnder,
  textInUnit,
  type Device,
  type HeldFigure,
  type Level,
  type LevelCosts,
  type ColumnUnit,
  type SetNode,
} from '@stravel/core';
import { BAKE_STATE_WORDS, costsOf, type LevelBakes } from '../../bakes/bakes-store';
import { BUDGET_OF, MEASURES, columnUnits, heldText, type Measure } from '../../bakes/core-bands';
import { FIGURE_MARKS, markOf, type FigureMark } from '../../bakes/figure-mark';

/** The states that levels are filtered by. A figure that may be over counts as not known. */
export const BUDGET_CHIPS = ['over', 'near', 'not known', 'stale'] as const;
export type BudgetChip = (typeof BUDGET_CHIPS)[number];

/** One figure of a level against one device. */
export interface BudgetCell {
  readonly measure: Measure;
  readonly device: string;
  readonly held: HeldFigure;
  readonly mark: FigureMark;
  /** In the unit of its column. */
  readonly text: string;
  /** In words, for those who hear it. */
  readonly label: string;
}

export interface LevelRow {
  readonly id: string;
  readonly level: Level;
  readonly number: string;
  readonly costs: LevelCosts;
  readonly bakes: string;
  readonly chips: ReadonlySet<BudgetChip>;
  /** By device as compared, each with all measures. */
  readonly cells: readonly (readonly BudgetCell[])[];
  /** The worst of all its figures. */
  readonly worst: BudgetCell;
}

export interface SetRow {
  readonly id: string;
  readonly name: string;
  readonly levels: readonly LevelRow[];
  /** How many of its levels are of each state. */
  readonly counts: Readonly<Record<BudgetChip, number>>;
}

export interface BudgetInput {
  readonly tree: readonly SetNode[];
  readonly bakes: Readonly<Record<string, LevelBakes>>;
  readonly numbers: ReadonlyMap<string, number>;
  readonly devices: readonly Device[];
}

const NOTHING_HELD: HeldFigure = { state: 'not known', value: undefined, share: undefined };

/**
 * The top sets with their levels, the worst level first. Levels that are played are all there, others where they have
 * content; what is not known comes just below what is over. None without a device.
 */
export function budgetRows({ tree, bakes, numbers, devices }: BudgetInput): SetRow[] {
  if (devices.length === 0) return [];
  const units = columnUnits(devices);
  return tree.flatMap((node) => {
    const levels = levelsUnder(node)
      .filter(({ id, purpose }) => purpose === 'play' || Object.hasOwn(bakes, id))
      .map((level) => levelRow(level, Object.hasOwn(bakes, level.id) ? bakes[level.id] : undefined, devices, units))
      .map((row) => ({ ...row, number: String(numbers.get(row.id) ?? '·') }))
      .sort((a, b) => worseFirst(a.worst, b.worst));
    if (levels.length === 0) return [];
    return [
      {
        id: node.set.id,
        name: node.set.name,
        levels,
        counts: byKey(BUDGET_CHIPS, (chip) => levels.filter(({ chips }) => chips.has(chip)).length),
      },
    ];
  });
}

/** Sorts what is worse to the front: by its mark as far as over and not known go, then by its share. */
function worseFirst(a: BudgetCell, b: BudgetCell): number {
  return classOf(a.mark) - classOf(b.mark) || (b.held.share ?? 0) - (a.held.share ?? 0);
}

function classOf(mark: FigureMark): number {
  return Math.min(FIGURE_MARKS.indexOf(mark), FIGURE_MARKS.indexOf('near'));
}

function levelRow(
  level: Level,
  bakes: LevelBakes | undefined,
  devices: readonly Device[],
  units: Readonly<Record<Measure, ColumnUnit>>,
): Omit<LevelRow, 'number'> {
  const costs = costsOf(bakes);
  const cells = devices.map((device) => {
    const { figures } = holdAgainst(costs, device);
    return MEASURES.map((measure) => {
      const held = bakes ? figures[BUDGET_OF[measure]] : NOTHING_HELD;
      const on = devices.length > 1 ? ` on ${device.name}` : '';
      return {
        measure,
        device: device.id,
        held,
        mark: markOf(held),
        text: held.value === undefined ? '?' : textInUnit(held.value, units[measure]),
        label: `${measure} of ${level.name}${on}: ${heldText(measure, held)}`,
      };
    });
  });
  const all = cells.flat();
  return {
    id: level.id,
    level,
    costs,
    bakes: bakesText(bakes),
    chips: new Set(all.flatMap(({ mark }) => chipOf(mark) ?? [])),
    cells,
    worst: all.reduce((worst, cell) => (worseFirst(cell, worst) < 0 ? cell : worst)),
  };
}

function chipOf(mark: FigureMark): BudgetChip | undefined {
  return BUDGET_CHIPS.find((chip) => chip === (mark === 'may be over' ? 'not known' : mark));
}

function bakesText(bakes: LevelBakes | undefined): string {
  if (!bakes) return 'no content';
  const states = [bakes.sight.state, bakes.figures.state];
  if (states.every((state) => state === 'fresh')) return BAKE_STATE_WORDS.fresh;
  const first = (['unknown', 'none'] as const).find((state) => states.includes(state));
  return BAKE_STATE_WORDS[first ?? 'stale'];
}
