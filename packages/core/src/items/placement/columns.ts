import type { Placement, PlacementColumns, PlacementMore } from '../../model/placement';
import type { TurnDegrees, Vector3 } from '../../model/vector';

/** Numbers of one placement. */
export const PLACEMENT_NUMBERS = 9;

/** No placement at all. */
export const NO_PLACEMENTS: PlacementColumns = {
  count: 0,
  ids: [],
  pieces: [],
  numbers: new Float64Array(0),
  more: new Map(),
};

/** Placements in columns, in their order. A zero has no sign there, as in JSON. */
export function columnsOf(placements: readonly Placement[]): PlacementColumns {
  if (placements.length === 0) return NO_PLACEMENTS;
  const numbers = new Float64Array(placements.length * PLACEMENT_NUMBERS);
  const more = new Map<number, PlacementMore>();
  let at = 0;
  placements.forEach((placement, i) => {
    for (const three of [placement.position, placement.turn, placement.scale])
      for (const value of three) numbers[at++] = value + 0;
    const own = moreOf(placement);
    if (own) more.set(i, own);
  });
  return {
    count: placements.length,
    ids: placements.map(({ id }) => id),
    pieces: placements.map(({ piece }) => piece),
    numbers,
    more,
  };
}

/** Three numbers of columns from a place on. */
export function threeAt(numbers: Float64Array, at: number): Vector3 {
  return [numbers[at], numbers[at + 1], numbers[at + 2]];
}

/** A placement of columns as a record. */
export function placementAt({ ids, pieces, numbers, more }: PlacementColumns, i: number): Placement {
  const at = i * PLACEMENT_NUMBERS;
  const turn: TurnDegrees = [numbers[at + 3], numbers[at + 4], numbers[at + 5]];
  return {
    id: ids[i],
    piece: pieces[i],
    position: threeAt(numbers, at),
    turn,
    scale: threeAt(numbers, at + 6),
    ...more.get(i),
  };
}

/** Columns one after the other. */
export function joinedColumns(all: readonly PlacementColumns[]): PlacementColumns {
  const some = all.filter(({ count }) => count > 0);
  if (some.length < 2) return some.at(0) ?? NO_PLACEMENTS;
  const count = some.reduce((sum, one) => sum + one.count, 0);
  const numbers = new Float64Array(count * PLACEMENT_NUMBERS);
  const more = new Map<number, PlacementMore>();
  let start = 0;
  for (const one of some) {
    numbers.set(one.numbers, start * PLACEMENT_NUMBERS);
    for (const [i, own] of one.more) more.set(start + i, own);
    start += one.count;
  }
  return { count, ids: some.flatMap(({ ids }) => ids), pieces: some.flatMap(({ pieces }) => pieces), numbers, more };
}

/** Group and own values of a placement; undefined when it has neither. */
export function moreOf({ group, values }: Partial<Placement>): PlacementMore | undefined {
  const hasGroup = group !== undefined && group !== null;
  const hasValues = values !== undefined && values !== null;
  return hasGroup || hasValues ? { ...(hasGroup ? { group } : {}), ...(hasValues ? { values } : {}) } : undefined;
}
