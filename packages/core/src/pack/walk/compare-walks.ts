import type { Vector3 } from '../../model/vector';
import { lodsAtStop, type RunLoad, type WalkRun } from './walk-run';

/** Figures that are closer than this share of the greater agree. */
const AGREE_SHARE = 0.03;
/** Bytes that differ by less than a block of a disk agree. */
const BLOCK_BYTES = 4096;
/** Stops that agree between two that do not, and yet part no difference from the next. */
const BRIDGED_STOPS = 2;
/** Objects that a difference names. */
const MAX_OBJECTS = 20;

/** What forecast and measured are compared in. */
export type ComparedFigure = 'triangles' | 'drawCalls' | 'memory' | 'disk';
export const COMPARED: readonly ComparedFigure[] = ['triangles', 'drawCalls', 'memory', 'disk'];

/** An object that is drawn otherwise than forecast. -1 stands for not at all. */
export interface DifferingObject {
  readonly id: string;
  readonly forecastLod: number;
  readonly measuredLod: number;
}

/** A stretch of a walk in which the pack does something else than was forecast. */
export interface WalkDifference {
  readonly what: ComparedFigure | 'objects' | 'late' | 'start';
  readonly fromMs: number;
  readonly toMs: number;
  /** Where it is worst. */
  readonly atMs: number;
  readonly at: Vector3;
  readonly forecast: number;
  readonly measured: number;
  /** Key of a late cell. */
  readonly cell?: string;
  /** At most 20 of those that are drawn otherwise there. */
  readonly objects: readonly DifferingObject[];
  /** How many they are. */
  readonly objectCount: number;
}

export interface WalkComparison {
  /** By time. */
  readonly differences: readonly WalkDifference[];
  /** Stops at which the same objects are drawn at the same LODs. */
  readonly sameObjects: number;
  /** Stops at which that is so and all figures agree within 3 %. */
  readonly agreeing: number;
  readonly stops: number;
}

/** The figures of a run at each of its stops: memory and bytes that wait for the disk too. */
export function figuresAtStops(run: WalkRun): Readonly<Record<ComparedFigure, readonly number[]>> {
  const times = run.stops.map(({ frame }) => frame * run.frameMs);
  return {
    triangles: run.triangles,
    drawCalls: run.drawCalls,
    memory: valuesAt(run.timesMs, run.residentBytes, times),
    disk: queuedBytes(run.loads, times),
  };
}

/**
 * What differs between a forecast walk and the same one measured with a pack: figures by more than 3 %, objects and LODs that are drawn, cells
 * that come late by a frame more or less, the load before the first step where that is apart by a frame too.
 * @param forecast and `measured` have the same stops
 */
export function compareWalks(forecast: WalkRun, measured: WalkRun): WalkComparison {
  const count = Math.min(forecast.stops.length, measured.stops.length);
  const [planned, found] = [figuresAtStops(forecast), figuresAtStops(measured)];
  const objects = differingObjects(forecast, measured, count);
  const timeOf = (stop: number): number => measured.stops[stop].frame * measured.frameMs;
  const differences: WalkDifference[] = [
    ...startDifference(forecast, measured),
    ...lateDifferences(forecast, measured),
  ];
  const isApart = new Uint8Array(count);
  const addRun = (what: WalkDifference['what'], from: number, to: number, worst: number, pair: number[]): void => {
    const named = what === 'memory' || what === 'disk' ? [] : objects.at(worst);
    differences.push({
      what,
      fromMs: timeOf(from),
      toMs: timeOf(to),
      atMs: timeOf(worst),
      at: measured.stops[worst].eye,
      forecast: pair[0],
      measured: pair[1],
      objects: named.slice(0, MAX_OBJECTS),
      objectCount: named.length,
    });
  };
  const explained = new Uint8Array(count);
  for (const what of COMPARED) {
    const apart = (stop: number): number => {
      const [a, b] = [planned[what][stop], found[what][stop]];
      const isSmall = what === 'disk' && Math.abs(a - b) < BLOCK_BYTES;
      return isSmall ? 0 : shareApart(a, b);
    };
    for (const { from, to, worst } of stretches(count, (stop) => (apart(stop) > AGREE_SHARE ? apart(stop) : 0))) {
      addRun(what, from, to, worst, [planned[what][worst], found[what][worst]]);
      if (what === 'triangles' || what === 'drawCalls') explained.fill(1, from, to + 1);
    }
    for (let stop = 0; stop < count; stop++) if (apart(stop) > AGREE_SHARE) isApart[stop] = 1;
  }
  for (const { from, to, worst } of stretches(count, (stop) => (explained[stop] ? 0 : objects.counts[stop])))
    addRun('objects', from, to, worst, [0, objects.counts[worst]]);
  let [sameObjects, agreeing] = [0, 0];
  for (let stop = 0; stop < count; stop++) {
    if (objects.counts[stop] > 0) continue;
    sameObjects++;
    if (!isApart[stop]) agreeing++;
  }
  return { differences: differences.sort((a, b) => a.atMs - b.atMs), sameObjects, agreeing, stops: count };
}

/** How far two amounts are apart, as a share of the greater. */
export function shareApart(a: number, b: number): number {
  const most = Math.max(Math.abs(a), Math.abs(b));
  return most === 0 ? 0 : Math.abs(a - b) / most;
}

interface Stretch {
  readonly from: number;
  readonly to: number;
  readonly worst: number;
}

/** Stretches of stops that have a weight above 0, and the stop in each that has most. */
function stretches(count: number, weight: (stop: number) => number): Stretch[] {
  const found: { from: number; to: number; worst: number }[] = [];
  for (let stop = 0; stop < count; stop++) {
    if (!(weight(stop) > 0)) continue;
    const last = found.at(-1);
    if (!last || stop - last.to > BRIDGED_STOPS + 1) found.push({ from: stop, to: stop, worst: stop });
    else {
      last.to = stop;
      if (weight(stop) > weight(last.worst)) last.worst = stop;
    }
  }
  return found;
}

function startDifference(forecast: WalkRun, measured: WalkRun): WalkDifference[] {
  const [planned, found] = [forecast.start.loadMs, measured.start.loadMs];
  if (shareApart(planned, found) <= AGREE_SHARE || Math.abs(planned - found) <= measured.frameMs) return [];
  const at = measured.stops.at(0)?.eye ?? [0, 0, 0];
  return [
    { what: 'start', fromMs: 0, toMs: 0, atMs: 0, at, forecast: planned, measured: found, objects: [], objectCount: 0 },
  ];
}

/** Cells that are late in one of both, or by a frame more in one. A cell that is late more than once is compared time by time. */
function lateDifferences(forecast: WalkRun, measured: WalkRun): WalkDifference[] {
  const byKey = (run: WalkRun): Map<string, WalkRun['late'][number][]> => {
    const table = new Map<string, WalkRun['late'][number][]>();
    for (const one of run.late) table.set(one.key, [...(table.get(one.key) ?? []), one]);
    return table;
  };
  const [planned, found] = [byKey(forecast), byKey(measured)];
  const differences: WalkDifference[] = [];
  for (const cell of new Set([...planned.keys(), ...found.keys()])) {
    const [before, now] = [planned.get(cell) ?? [], found.get(cell) ?? []];
    for (let i = 0; i < Math.max(before.length, now.length); i++) {
      const [a, b] = [before.at(i), now.at(i)];
      const one = b ?? a;
      const apart = Math.abs((a?.lateMs ?? 0) - (b?.lateMs ?? 0));
      if (!one || apart <= measured.frameMs + 1e-6) continue;
      differences.push({
        what: 'late',
        fromMs: one.neededMs,
        toMs: one.neededMs + one.lateMs,
        atMs: one.neededMs,
        at: one.at,
        forecast: a?.lateMs ?? 0,
        measured: b?.lateMs ?? 0,
        cell,
        objects: [],
        objectCount: 0,
      });
    }
  }
  return differences;
}

/** What is drawn otherwise at each stop: how many objects, and which. */
function differingObjects(
  forecast: WalkRun,
  measured: WalkRun,
  count: number,
): { readonly counts: Int32Array; readonly at: (stop: number) => DifferingObject[] } {
  const ids = [...new Set([...forecast.objects, ...measured.objects])];
  const numbers = new Map(ids.map((id, i) => [id, i]));
  const sides = [forecast, measured].map(({ objects, changes }) => ({
    changes,
    numbers: objects.map((id) => numbers.get(id) ?? 0),
    lods: new Int16Array(ids.length).fill(-1),
  }));
  const counts = new Int32Array(count);
  let differing = 0;
  for (let stop = 0; stop < count; stop++) {
    for (const [side, other] of [sides, [...sides].reverse()]) {
      const changes = side.changes[stop];
      for (let i = 0; i < changes.length; i += 2) {
        const object = side.numbers[changes[i]];
        const wasSame = side.lods[object] === other.lods[object];
        side.lods[object] = changes[i + 1];
        const isSame = side.lods[object] === other.lods[object];
        differing += (wasSame ? 1 : 0) - (isSame ? 1 : 0);
      }
    }
    counts[stop] = differing;
  }
  return {
    counts,
    at: (stop) => {
      const [planned, found] = [forecast, measured].map((run) => {
        const lods = lodsAtStop(run, stop);
        return new Map(run.objects.map((id, i) => [id, lods[i]]));
      });
      return ids.flatMap((id): DifferingObject[] => {
        const [forecastLod, measuredLod] = [planned.get(id) ?? -1, found.get(id) ?? -1];
        return forecastLod === measuredLod ? [] : [{ id, forecastLod, measuredLod }];
      });
    },
  };
}

/** The value of a series of steps at each of some moments, both ascending. */
function valuesAt(timesMs: readonly number[], values: readonly number[], moments: readonly number[]): number[] {
  let i = 0;
  return moments.map((ms) => {
    while (i + 1 < timesMs.length && timesMs[i + 1] <= ms) i++;
    return values[i] ?? 0;
  });
}

/** Bytes that were asked for and not read at each of some moments. */
function queuedBytes(loads: readonly RunLoad[], moments: readonly number[]): number[] {
  const steps = loads
    .flatMap(({ askedMs, readEndMs, diskBytes }) => [
      { ms: askedMs, bytes: diskBytes },
      { ms: readEndMs, bytes: -diskBytes },
    ])
    .sort((a, b) => a.ms - b.ms);
  let [i, bytes] = [0, 0];
  return moments.map((ms) => {
    for (; i < steps.length && steps[i].ms <= ms; i++) bytes += steps[i].bytes;
    return bytes;
  });
}
