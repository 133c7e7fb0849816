import { bytesText, countText, timeText } from '../numeric/amount-text';
import { finding, type Finding } from '../findings';
import type { Device } from '../model/device';
import type { Level } from '../model/level';
import { loadTime, type LevelLoad, type LoadTime } from './cost-model';
import type { LevelCount } from './count-level';
import type { FiguresSummary } from './level-figures';

export type BudgetMeasure = 'triangles' | 'drawCalls' | 'memoryBytes' | 'loadMs' | 'diskBytes';
export const BUDGET_MEASURES: readonly BudgetMeasure[] = [
  'triangles',
  'drawCalls',
  'memoryBytes',
  'loadMs',
  'diskBytes',
];

/** How far a figure can be trusted. A bound is above the true figure and within the limit, which settles it. */
export const FIGURE_STATES = ['known', 'bound', 'stale', 'not known'] as const;
export type FigureState = (typeof FIGURE_STATES)[number];

/** A figure held against its limit. */
export interface HeldFigure {
  readonly state: FigureState;
  /** Of one that is not known, the most that it can be; undefined when nothing was counted. */
  readonly value: number | undefined;
  /** Value over limit, 1 at the limit. */
  readonly share: number | undefined;
}

/** A level held against a device. */
export interface HeldLevel {
  readonly figures: Readonly<Record<BudgetMeasure, HeldFigure>>;
  readonly load: LoadTime | undefined;
  /** Measures that are known to be over their limit. */
  readonly over: readonly BudgetMeasure[];
  /** Measures of which a stale or missing bake leaves open whether they are. */
  readonly undecided: readonly BudgetMeasure[];
}

/** What a level's figures are read from. */
export interface LevelCosts {
  /** Of the level as it stands; undefined when it can't be counted. */
  readonly count: LevelCount | undefined;
  /** Of its last bake, and whether that agrees with the level as it stands. */
  readonly baked: { readonly figures: FiguresSummary; readonly isFresh: boolean } | undefined;
}

/** What a game loads for a level, with what its last bake adds: the file of what is seen. */
export function loadOf({ count, baked }: LevelCosts): LevelLoad | undefined {
  if (!count) return undefined;
  const { load } = count;
  const seenBytes = baked?.figures.sightFileBytes ?? 0;
  return {
    ...load,
    diskBytes: load.diskBytes + seenBytes,
    own: { ...load.own, diskBytes: load.own.diskBytes + seenBytes },
  };
}

/** Above this share of a limit a value is near it. */
export const NEAR_SHARE = 0.9;

/**
 * Holds what is known of a level against a device's budget. What is counted without a bake is never stale. Memory and load time of a level
 * that is cut into cells are bounds: a rehearsal tells how much of it is there at one time.
 */
export function holdAgainst(costs: LevelCosts, device: Device): HeldLevel {
  const { budget } = device;
  const { count, baked } = costs;
  const loaded = loadOf(costs);
  const load = loaded && loadTime(loaded, device);
  const of = (state: FigureState, value: number | undefined, limit: number): HeldFigure => ({
    state,
    value,
    share: value === undefined ? undefined : value / limit,
  });
  const plain = (value: number | undefined, limit: number): HeldFigure =>
    of(value === undefined ? 'not known' : 'known', value, limit);
  // Of a level that is cut never more than all of it is loaded: enough where that is within the limit.
  const loadedAtOnce = (value: number | undefined, limit: number): HeldFigure =>
    value !== undefined && loaded?.isCut
      ? of(value <= limit ? 'bound' : 'not known', value, limit)
      : plain(value, limit);
  const seen = (worst: number | undefined, bound: number | undefined, limit: number): HeldFigure => {
    if (baked?.isFresh && worst !== undefined) return of('known', worst, limit);
    if (bound !== undefined && bound <= limit) return of('bound', bound, limit);
    return worst === undefined ? of('not known', bound, limit) : of('stale', worst, limit);
  };
  const figures: Record<BudgetMeasure, HeldFigure> = {
    triangles: seen(baked?.figures.worst.at(0)?.triangles, count?.bound.triangles, budget.triangles),
    drawCalls: seen(baked?.figures.worstDrawCalls?.drawCalls, count?.bound.drawCalls, budget.drawCalls),
    memoryBytes: loadedAtOnce(loaded?.memoryBytes, budget.memoryBytes),
    loadMs: loadedAtOnce(load?.totalMs, budget.loadMs),
    diskBytes: plain(loaded?.diskBytes, budget.diskBytes),
  };
  return {
    figures,
    load,
    over: BUDGET_MEASURES.filter((measure) => figures[measure].state === 'known' && (figures[measure].share ?? 0) > 1),
    undecided: BUDGET_MEASURES.filter(
      (measure) => figures[measure].state === 'stale' || figures[measure].state === 'not known',
    ),
  };
}

/** What a level has too much of, with the amount in the unit of its series. */
const TOO_MUCH: Readonly<
  Record<BudgetMeasure, { readonly text: (value: number) => string; readonly verb: string; readonly of: string }>
> = {
  triangles: { text: countText, verb: 'draws', of: ' triangles from its worst pocket' },
  drawCalls: { text: countText, verb: 'needs', of: ' draw calls from its worst pocket' },
  memoryBytes: { text: bytesText, verb: 'needs', of: ' of memory' },
  loadMs: { text: timeText, verb: 'loads in', of: '' },
  diskBytes: { text: bytesText, verb: 'takes', of: ' on disk' },
};

/** Code of the finding that a level breaks a budget. */
export function overCode(measure: BudgetMeasure): string {
  return `OVER_${measure.replace(/([A-Z])/g, '_$1').toUpperCase()}`;
}

/** One finding for each budget that a level is known to break on a device. */
export function budgetFindings(level: Level, costs: LevelCosts, device: Device): Finding[] {
  const held = holdAgainst(costs, device);
  return held.over.map((measure) => {
    const { value = NaN, share = NaN } = held.figures[measure];
    const { text, verb, of } = TOO_MUCH[measure];
    const spot =
      measure === 'triangles'
        ? costs.baked?.figures.worst.at(0)
        : measure === 'drawCalls'
          ? costs.baked?.figures.worstDrawCalls
          : null;
    return finding({
      code: overCode(measure),
      desk: 'budget',
      severity: 'error',
      subject: `${level.id}.${device.id}`,
      place: { level: level.id, ...(spot ? { position: spot.middle } : {}) },
      message: `${level.name} ${verb} ${text(value)}${of}, ${device.name} allows ${text(device.budget[measure])}`,
      why: `It is ${Math.round((share - 1) * 100)} % over what ${device.name} can do at ${device.framesPerSecond} frames a second.`,
    });
  });
}
