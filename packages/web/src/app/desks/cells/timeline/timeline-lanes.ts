import type { LateCell, WalkLoad } from '@stravel/core';

/** Rows of the disk's lane. */
export const DISK_ROWS = 3;
/** A load narrower than this share of the walk is drawn as wide as this. */
const LEAST_SHARE = 1 / 260;
const MOST_TICKS = 9;

/** Rectangles of one stage of all loads, as the path of an SVG: x in milliseconds, y in rows. */
export interface DiskLanes {
  readonly asked: string;
  readonly read: string;
  readonly unpacked: string;
  readonly ready: string;
}

/** Row of each load, in their order: the first that is free by then; the last takes what has no free row. */
export function packRows(loads: readonly Pick<WalkLoad, 'askedMs' | 'readyMs'>[], spareMs: number): number[] {
  const freeFrom = new Array<number>(DISK_ROWS).fill(-Infinity);
  return loads.map(({ askedMs, readyMs }) => {
    const free = freeFrom.findIndex((from) => from <= askedMs);
    const row = free < 0 ? DISK_ROWS - 1 : free;
    freeFrom[row] = Math.max(freeFrom[row], Math.max(readyMs, askedMs + spareMs) + spareMs);
    return row;
  });
}

/** All loads as lanes: waiting in the queue, read, unpacked and put in place, ready. */
export function diskLanes(loads: readonly WalkLoad[], durationMs: number): DiskLanes {
  const spareMs = durationMs * LEAST_SHARE;
  const inOrder = [...loads].sort((a, b) => a.askedMs - b.askedMs);
  const rows = packRows(inOrder, spareMs);
  const parts = { asked: '', read: '', unpacked: '', ready: '' };
  inOrder.forEach(({ askedMs, readStartMs, readEndMs, readyMs }, i) => {
    const box = (from: number, to: number): string =>
      to > from ? `M${from} ${rows[i] + 0.12}H${to}V${rows[i] + 0.88}H${from}Z` : '';
    parts.asked += box(askedMs, readStartMs);
    // What is done in no time is seen all the same.
    parts.read += box(readStartMs, Math.max(readEndMs, readyMs - askedMs < spareMs ? askedMs + spareMs : 0));
    parts.unpacked += box(readEndMs, readyMs);
    parts.ready += `M${readyMs} ${rows[i]}V${rows[i] + 1}`;
  });
  return parts;
}

/** Resident bytes as the outline of an area: x in milliseconds, y from 0 at the top amount down to 1. */
export function memoryArea(
  timesMs: readonly number[],
  bytes: readonly number[],
  durationMs: number,
  topBytes: number,
): string {
  if (timesMs.length === 0 || !(topBytes > 0)) return '';
  const heights = bytes.map((value) => 1 - value / topBytes);
  const steps = timesMs.slice(1).map((ms, i) => `H${ms}V${heights[i + 1]}`);
  return `M${timesMs[0]} 1V${heights[0]}${steps.join('')}H${durationMs}V1Z`;
}

/** Moments to mark, milliseconds: every 1, 2 or 5 times a power of ten seconds, at most nine. */
export function ticksOf(durationMs: number): number[] {
  if (!(durationMs > 0)) return [0];
  let stepMs = 1000;
  for (let i = 0; durationMs / stepMs > MOST_TICKS; i++) stepMs *= i % 3 === 1 ? 2.5 : 2;
  return Array.from({ length: Math.floor(durationMs / stepMs) + 1 }, (_, i) => i * stepMs);
}

/** Bytes in memory at a moment. */
export function residentAt(timesMs: readonly number[], bytes: readonly number[], ms: number): number {
  let [low, high] = [0, timesMs.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (timesMs[middle] <= ms) low = middle + 1;
    else high = middle;
  }
  return bytes[Math.max(0, low - 1)] ?? 0;
}

/** Where one is at a moment, between the places of each second. */
export function placeAtMs(
  track: readonly (readonly [number, number])[],
  ms: number,
): readonly [number, number] | undefined {
  if (track.length === 0) return undefined;
  const seconds = Math.min(track.length - 1, Math.max(0, ms / 1000));
  const [from, to] = [track[Math.floor(seconds)], track[Math.ceil(seconds)]];
  const part = seconds - Math.floor(seconds);
  return [from[0] + (to[0] - from[0]) * part, from[1] + (to[1] - from[1]) * part];
}

/** Why a cell came late: how long each stage of its last load took, the longest first. Empty where it never came. */
export function lateReasons(
  late: Pick<LateCell, 'cell' | 'readyMs'>,
  loads: readonly WalkLoad[],
): { readonly name: string; readonly ms: number }[] {
  if (late.readyMs === null) return [];
  const last = loads.filter(({ readyMs }) => readyMs === late.readyMs);
  // A cell waits for its kits, too.
  const load = last.find(({ what, number }) => what === 'cell' && number === late.cell) ?? last.at(0);
  if (!load) return [];
  const of = load.what === 'meshes' ? ` of the meshes of ${load.name}` : '';
  return [
    { name: `queue${of}`, ms: load.readStartMs - load.askedMs },
    { name: `read${of}`, ms: load.readEndMs - load.readStartMs },
    { name: `unpack${of}`, ms: load.unpackEndMs - load.readEndMs },
    { name: `activate${of}`, ms: load.readyMs - load.unpackEndMs },
  ]
    .filter(({ ms }) => ms > 0)
    .sort((a, b) => b.ms - a.ms);
}

/** Something that happened on the walk. */
export interface WalkEvent {
  readonly ms: number;
  readonly text: string;
  /** Whether it is something wrong. */
  readonly isFault: boolean;
}

/** Events with those that are too near to the one before them told with it. @param events by time @param spareMs least distance of two */
export function gatherEvents(events: readonly WalkEvent[], spareMs: number): WalkEvent[] {
  const gathered: WalkEvent[] = [];
  for (const event of events) {
    const last = gathered.at(-1);
    if (!last || event.ms - last.ms >= spareMs) gathered.push(event);
    else
      gathered[gathered.length - 1] = {
        ms: last.ms,
        text: `${last.text} · ${event.text}`,
        isFault: last.isFault || event.isFault,
      };
  }
  return gathered;
}
