import { types } from 'node:util';

/**
 * Large plain data sent between threads in slices: what is cloned in one piece holds the loop of whoever takes it for as long.
 * Its long lists and tables are taken out of it, sent a few hundred members at a time, and put back on the other side.
 */
export interface SlicedData {
  /** The data with nothing in the places of what was taken out. */
  readonly rest: unknown;
  readonly places: readonly SlicedPlace[];
}

type ListKind = 'list' | 'table';

/** Where something was taken out. */
export interface SlicedPlace {
  /** Index, key or name at each step, from outside. */
  readonly path: readonly (string | number)[];
  readonly kind: ListKind;
}

/** Members of some places, in order. Of tables, pairs of key and value. */
export type Slice = readonly { readonly place: number; readonly members: readonly unknown[] }[];

/** Fewer members than these stay where they are. */
const MIN_SLICED = 64;
/** Values in one slice, those within values too. */
const SLICE_PARTS = 5000;
/** A list of which a member has so many is looked into, not sent as it is. */
const LARGE_MEMBER_PARTS = 4000;
/** Of longer lists some members are looked at, of shorter ones all. */
const ALL_LOOKED_AT = 400;

/** What was taken out of one place. */
export interface SlicedList {
  readonly members: readonly unknown[];
  /** Values in a member, on average. */
  readonly parts: number;
}

/** Takes the long lists out of data; the data itself is left as it is. @param least members from which something is taken out */
export function slicedData(
  data: unknown,
  least = MIN_SLICED,
): { readonly sliced: SlicedData; readonly lists: readonly SlicedList[] } {
  const places: SlicedPlace[] = [];
  const lists: SlicedList[] = [];
  const path: (string | number)[] = [];
  const takesOut = (kind: ListKind, members: readonly unknown[]): boolean => {
    if (members.length < least) return false;
    const parts = averageParts(members);
    if (parts === undefined) return false;
    places.push({ path: [...path], kind });
    lists.push({ members, parts });
    return true;
  };
  const within = <K extends string | number>(
    entries: Iterable<readonly [K, unknown]>,
    put: (key: K, value: unknown) => void,
  ): void => {
    for (const [key, value] of entries) {
      path.push(key);
      const kept = keep(value);
      path.pop();
      if (kept !== value) put(key, kept);
    }
  };
  const keep = (value: unknown): unknown => {
    if (typeof value !== 'object' || value === null) return value;
    if (Array.isArray(value)) {
      const list: readonly unknown[] = value;
      if (takesOut('list', list)) return null;
      let copy: unknown[] | undefined;
      within(list.entries(), (i, kept) => ((copy ??= [...list])[i] = kept));
      return copy ?? value;
    }
    if (types.isMap(value)) {
      const map = value as ReadonlyMap<string, unknown>;
      let copy: Map<string, unknown> | undefined;
      within(map, (key, kept) => (copy ??= new Map(map)).set(key, kept));
      return copy ?? value;
    }
    if (!isTable(value)) return value;
    const entries = Object.entries(value);
    if (takesOut('table', entries)) return null;
    let copy: Record<string, unknown> | undefined;
    within(entries, (key, kept) => put((copy ??= { ...value }), key, kept));
    return copy ?? value;
  };
  return { sliced: { rest: keep(data), places }, lists };
}

/** The members of what was taken out, slice by slice. */
export function* slicesOf(lists: readonly SlicedList[], most = SLICE_PARTS): Generator<Slice> {
  let slice: Slice[number][] = [];
  let left = most;
  for (const [place, { members, parts }] of lists.entries()) {
    for (let start = 0; start < members.length;) {
      const end = start + Math.max(1, Math.floor(left / parts));
      slice.push({ place, members: members.slice(start, end) });
      left -= (Math.min(end, members.length) - start) * parts;
      start = end;
      if (left >= parts) continue;
      yield slice;
      slice = [];
      left = most;
    }
  }
  if (slice.length > 0) yield slice;
}

/** Gathers slices and puts the data together again. */
export class SliceGathering {
  private readonly lists = new Map<number, unknown[]>();

  take(slice: Slice): void {
    for (const { place, members } of slice) {
      const list = this.lists.get(place);
      if (!list) this.lists.set(place, [...members]);
      else for (const member of members) list.push(member);
    }
  }

  /** Makes the data whole. Changes `rest` in place. */
  whole({ rest, places }: SlicedData): unknown {
    let whole = rest;
    for (const [place, { path, kind }] of places.entries()) {
      const value = made(kind, this.lists.get(place) ?? []);
      if (path.length === 0) {
        whole = value;
        continue;
      }
      let at = whole;
      for (const step of path.slice(0, -1))
        at = types.isMap(at) ? at.get(step) : (at as Record<string | number, unknown>)[step];
      const step = path[path.length - 1];
      if (types.isMap(at)) at.set(step, value);
      else put(at as Record<string, unknown>, step, value);
    }
    return whole;
  }
}

function made(kind: ListKind, members: readonly unknown[]): unknown {
  if (kind === 'list') return members;
  return Object.fromEntries(members as readonly (readonly [string, unknown])[]);
}

/** Values in a member on average, told from some; undefined when one of them is too large to be sent as it is. */
function averageParts(members: readonly unknown[]): number | undefined {
  const step = members.length <= ALL_LOOKED_AT ? 1 : Math.floor(members.length / ALL_LOOKED_AT);
  let [sum, count] = [0, 0];
  for (let i = 0; i < members.length; i += step) {
    const parts = partsOf(members[i], LARGE_MEMBER_PARTS);
    if (parts >= LARGE_MEMBER_PARTS) return undefined;
    sum += parts;
    count++;
  }
  return sum / count;
}

/** Number of values within a value and of itself, counted up to a limit. */
function partsOf(value: unknown, limit: number): number {
  if (typeof value !== 'object' || value === null) return 1;
  const members: Iterable<unknown> = Array.isArray(value)
    ? value
    : types.isMap(value)
      ? value.values()
      : isTable(value)
        ? Object.values(value)
        : [];
  let count = 1;
  for (const member of members) {
    count += partsOf(member, limit - count);
    if (count >= limit) break;
  }
  return count;
}

/** Whether it is a table of plain data; what has a form of its own, such as bytes, is left whole. */
function isTable(value: object): value is Record<string, unknown> {
  const prototype = Object.getPrototypeOf(value) as object | null;
  return prototype === null || Object.getPrototypeOf(prototype) === null;
}

/** Sets a member of a table, whatever its name. */
function put(table: Record<string, unknown>, key: string | number, value: unknown): void {
  Object.defineProperty(table, key, { value, writable: true, enumerable: true, configurable: true });
}
