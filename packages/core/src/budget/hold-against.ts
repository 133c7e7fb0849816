import { finding, type Finding } from '../findings';
import type { Device } from '../model/device';
import type { Level } from '../model/level';
import { loadTime, type LoadTime } from './cost-model';
import type { FiguresSummary } from './level-figures';

export type BudgetMeasure = 'triangles' | 'drawCalls' | 'memoryBytes' | 'loadMs' | 'diskBytes';
export const BUDGET_MEASURES: readonly BudgetMeasure[] = ['triangles', 'drawCalls', 'memoryBytes', 'loadMs', 'diskBytes'];

/** A level held against a device. */
export interface HeldLevel {
  readonly values: Readonly<Record<BudgetMeasure, number>>;
  /** Value over limit, 1 at the limit. */
  readonly shares: Readonly<Record<BudgetMeasure, number>>;
  readonly load: LoadTime;
  readonly over: readonly BudgetMeasure[];
}

/** Above this share of a limit a value is near it. */
export const NEAR_SHARE = 0.9;

/** Holds a level's figures against a device's budget. */
export function holdAgainst(figures: FiguresSummary, device: Device): HeldLevel {
  const load = loadTime(figures, device);
  const values: Record<BudgetMeasure, number> = {
    triangles: figures.worst.at(0)?.triangles ?? 0,
    drawCalls: figures.worstDrawCalls?.drawCalls ?? 0,
    memoryBytes: figures.memoryBytes,
    loadMs: load.totalMs,
    diskBytes: figures.diskBytes,
  };
  const shares = { ...values };
  for (const measure of BUDGET_MEASURES) shares[measure] = values[measure] / device.budget[measure];
  return { values, shares, load, over: BUDGET_MEASURES.filter((measure) => shares[measure] > 1) };
}

const NAMES: Readonly<Record<BudgetMeasure, string>> = {
  triangles: 'triangles from its worst pocket',
  drawCalls: 'draw calls from its worst pocket',
  memoryBytes: 'bytes of memory',
  loadMs: 'milliseconds to load',
  diskBytes: 'bytes on disk',
};

/** One finding for each budget that a level breaks on a device. */
export function budgetFindings(level: Level, figures: FiguresSummary, device: Device): Finding[] {
  const held = holdAgainst(figures, device);
  return held.over.map((measure) => {
    const spot = measure === 'triangles' ? figures.worst.at(0) : measure === 'drawCalls' ? figures.worstDrawCalls : null;
    return finding({
      code: `OVER_${measure.replace(/([A-Z])/g, '_$1').toUpperCase()}`,
      desk: 'budget',
      severity: 'error',
      subject: `${level.id}.${device.id}`,
      place: { level: level.id, ...(spot ? { position: spot.middle } : {}) },
      message: `${level.name} has ${Math.round(held.values[measure])} ${NAMES[measure]}, ${device.name} allows ${device.budget[measure]}`,
      why: `It is ${Math.round((held.shares[measure] - 1) * 100)} % over what ${device.name} holds at ${device.framesPerSecond} frames a second.`,
    });
  });
}
