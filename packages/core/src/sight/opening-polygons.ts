/** The openings between pockets as the flow reads them: plain numbers, each opening seen from both sides. */
export interface OpeningTable {
  readonly count: number;
  /** Corners of opening o are xyz triples from `starts[o]` to `starts[o + 1]`. */
  readonly corners: Float64Array;
  readonly starts: Uint32Array;
  /** Unit normal from the first pocket to the second, and offset: four numbers an opening. */
  readonly planes: Float64Array;
  /** Number of the plane in the welded table, side left out. */
  readonly planeNumbers: Uint32Array;
  /** Centre and radius of a ball about the opening: four numbers each. */
  readonly balls: Float64Array;
  readonly firsts: Uint32Array;
  readonly seconds: Uint32Array;
}

/** A way through an opening: twice its number, plus one from the second pocket to the first. */
export type Way = number;

/** The ways out of every pocket, in order of number. */
export function waysOfPockets(openings: OpeningTable, pocketCount: number): Way[][] {
  const ways: Way[][] = Array.from({ length: pocketCount }, () => []);
  for (let o = 0; o < openings.count; o++) {
    ways[openings.firsts[o]].push(o * 2);
    ways[openings.seconds[o]].push(o * 2 + 1);
  }
  return ways;
}

/** The pocket that a way leads into. */
export function wayTarget(openings: OpeningTable, way: Way): number {
  return way & 1 ? openings.firsts[way >> 1] : openings.seconds[way >> 1];
}

/** Gathers openings into one table. */
export function openingTable(
  openings: readonly {
    readonly first: number;
    readonly second: number;
    readonly planeNumber: number;
    readonly plane: readonly [number, number, number, number];
    readonly corners: Float64Array;
  }[],
): OpeningTable {
  const count = openings.length;
  const starts = new Uint32Array(count + 1);
  openings.forEach(({ corners }, o) => (starts[o + 1] = starts[o] + corners.length));
  const table = {
    count,
    corners: new Float64Array(starts[count]),
    starts,
    planes: new Float64Array(count * 4),
    planeNumbers: new Uint32Array(count),
    balls: new Float64Array(count * 4),
    firsts: new Uint32Array(count),
    seconds: new Uint32Array(count),
  };
  openings.forEach(({ first, second, planeNumber, plane, corners }, o) => {
    table.corners.set(corners, starts[o]);
    table.planes.set(plane, o * 4);
    table.planeNumbers[o] = planeNumber;
    table.firsts[o] = first;
    table.seconds[o] = second;
    table.balls.set(ballOf(corners), o * 4);
  });
  return table;
}

function ballOf(corners: Float64Array): [number, number, number, number] {
  const n = corners.length / 3;
  const centre: [number, number, number, number] = [0, 0, 0, 0];
  for (let i = 0; i < corners.length; i++) centre[i % 3] += corners[i] / n;
  let square = 0;
  for (let i = 0; i < corners.length; i += 3) {
    const x = corners[i] - centre[0];
    const y = corners[i + 1] - centre[1];
    const z = corners[i + 2] - centre[2];
    square = Math.max(square, x * x + y * y + z * z);
  }
  centre[3] = Math.sqrt(square);
  return centre;
}
