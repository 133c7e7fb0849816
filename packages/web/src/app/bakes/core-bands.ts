import {
  STRATUM_ROLES,
  byKey,
  columnUnit,
  holdAgainst,
  loadOf,
  loadTime,
  type BudgetMeasure,
  type ColumnUnit,
  type Device,
  type HeldFigure,
  type LevelCosts,
  type LoadParts,
  type StratumFigures,
} from '@stravel/core';
import type { CoreBand } from '../ui/core-sample';
import { bytesText, countText, timeText } from '../ui/amount';

/** What the bands of a core sample are as thick as. */
export const MEASURES = ['memory', 'triangles', 'draw calls', 'load time', 'disk'] as const;
export type Measure = (typeof MEASURES)[number];

export const BUDGET_OF: Readonly<Record<Measure, BudgetMeasure>> = {
  memory: 'memoryBytes',
  triangles: 'triangles',
  'draw calls': 'drawCalls',
  'load time': 'loadMs',
  disk: 'diskBytes',
};

/** A device's limit for a measure. */
export function limitOf(device: Device, measure: Measure): number {
  const { budget } = device;
  switch (measure) {
    case 'memory':
      return budget.memoryBytes;
    case 'triangles':
      return budget.triangles;
    case 'draw calls':
      return budget.drawCalls;
    case 'load time':
      return budget.loadMs;
    case 'disk':
      return budget.diskBytes;
  }
}

/** A value of a measure as a person reads it. */
export function measureText(measure: Measure, value: number): string {
  if (measure === 'memory' || measure === 'disk') return bytesText(value);
  return measure === 'load time' ? timeText(value) : countText(value);
}

/** The unit of each measure's column: that of the smallest limit, so that devices compare. */
export function columnUnits(devices: readonly Device[]): Readonly<Record<Measure, ColumnUnit>> {
  const of = (measure: Measure): ColumnUnit => {
    if (measure === 'load time') return { size: 1000, name: 's' };
    const limits = devices.map((device) => limitOf(device, measure));
    return columnUnit(
      limits.length > 0 ? Math.min(...limits) : 0,
      measure === 'memory' || measure === 'disk' ? 'B' : '',
    );
  };
  return byKey(MEASURES, of);
}

/** A figure with how far it can be trusted, as a person reads it. */
export function heldText(measure: Measure, { state, value }: HeldFigure): string {
  if (value === undefined) return 'not known';
  const text = measureText(measure, value);
  switch (state) {
    case 'known':
      return text;
    case 'bound':
      return `at most ${text}`;
    case 'stale':
      return `${text}, stale`;
    case 'not known':
      return `not known, at most ${text}`;
  }
}

/** A level's core: its bands, and what they add up to. */
export interface LevelCore {
  readonly bands: readonly CoreBand[];
  readonly held: HeldFigure;
}

/**
 * The core of a level: its strata by role, and within a role bottom first, then the kits: cores side by side compare.
 * Triangles and draw calls are those of the worst pocket, or of everything where that is enough to be within the limit;
 * none where they are not known.
 */
export function levelCore(costs: LevelCosts, device: Device, measure: Measure): LevelCore {
  const held = holdAgainst(costs, device).figures[BUDGET_OF[measure]];
  return { bands: held.state === 'not known' ? [] : bandsOf(costs, device, measure, held), held };
}

function bandsOf(costs: LevelCosts, device: Device, measure: Measure, { state, value = 0 }: HeldFigure): CoreBand[] {
  const { count, baked } = costs;
  const load = loadOf(costs);
  const counted = count ?? baked?.figures;
  if (!counted) return [];
  const worst =
    measure === 'triangles'
      ? baked?.figures.worst.at(0)
      : measure === 'draw calls'
        ? baked?.figures.worstDrawCalls
        : undefined;
  const seen = state === 'bound' ? undefined : worst?.strata;
  const isShared = measure === 'draw calls' && state === 'bound';
  // With everything in view strata have draw calls in common: each is as thick as its share of all that are of one alone.
  const ownCalls = counted.strata.reduce((sum, { drawCalls }) => sum + drawCalls, 0);
  const strata = inOrder(counted.strata).map((stratum): CoreBand => {
    const own = seen?.find((one) => one.stratum === stratum.stratum);
    const diskBytes = load?.strata.find((one) => one.stratum === stratum.stratum)?.diskBytes ?? 0;
    const amount = ofStratum(
      { ...stratum, diskBytes },
      device,
      measure,
      state === 'bound'
        ? { triangles: stratum.triangles, drawCalls: ownCalls > 0 ? (stratum.drawCalls / ownCalls) * value : 0 }
        : own,
    );
    return {
      id: stratum.stratum,
      name: stratum.name,
      role: stratum.role,
      value: amount,
      text: isShared ? `${countText(stratum.drawCalls)} of its own` : measureText(measure, amount),
    };
  });
  const rest = ([id, name, parts]: readonly [string, string, LoadParts | undefined]): CoreBand[] => {
    const value = parts ? ofParts(parts, device, measure) : 0;
    return value > 0 ? [{ id, name, role: 'kit', value, text: measureText(measure, value) }] : [];
  };
  return [...strata, ...rest(['level', 'level files', load?.own]), ...rest(['kit', 'kits', load?.kits])];
}

/** Strata in the order of all cores: by role, and within a role as they lie in the level. */
function inOrder(strata: readonly StratumFigures[]): StratumFigures[] {
  return STRATUM_ROLES.flatMap((role) => strata.filter((stratum) => stratum.role === role));
}

function ofParts(parts: LoadParts, device: Device, measure: Measure): number {
  switch (measure) {
    case 'memory':
      return parts.memoryBytes;
    case 'disk':
      return parts.diskBytes;
    case 'load time':
      return loadTime(parts, device).totalMs;
    default:
      return 0;
  }
}

function ofStratum(
  { memoryBytes, diskBytes }: Pick<StratumFigures, 'memoryBytes'> & { readonly diskBytes: number },
  device: Device,
  measure: Measure,
  seen: { readonly triangles: number; readonly drawCalls: number } | undefined,
): number {
  switch (measure) {
    case 'memory':
      return memoryBytes;
    case 'disk':
      return diskBytes;
    case 'triangles':
      return seen?.triangles ?? 0;
    case 'draw calls':
      return seen?.drawCalls ?? 0;
    case 'load time':
      return loadTime({ files: 0, diskBytes, memoryBytes }, device).totalMs;
  }
}
