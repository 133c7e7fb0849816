import type { PlanPoint } from '../../model/vector';
import type { Wall } from '../../model/wall';

/** A half plane of the plan in the wall's frame: nx·x + nz·z ≤ offset. */
export type HalfPlane = readonly [nx: number, nz: number, offset: number];

/** One straight part of a wall. Its frame has its origin at the wall's first corner. Metres. */
export interface WallSegment {
  /** Id of the corner at which it begins. */
  readonly corner: string;
  readonly from: PlanPoint;
  readonly lengthMetres: number;
  /** Its direction, of length 1. */
  readonly direction: PlanPoint;
  /** Its two faces, left of its direction and right of it. */
  readonly faces: readonly [HalfPlane, HalfPlane];
  /** What ends it at its first corner and at its last: across it, or in the mitre. */
  readonly ends: readonly [HalfPlane, HalfPlane];
  /** Between these lengths from its first corner it has its whole thickness. */
  readonly whole: readonly [number, number];
}

export interface WallPlan {
  readonly segments: readonly WallSegment[];
  /** Triangles that fill the outside of corners that are not mitred. */
  readonly wedges: readonly { readonly corner: string; readonly sides: readonly HalfPlane[] }[];
  /**
   * What a closed wall encloses, to its line; wall's frame. Floors to its inner faces were tried: where two faces meet, the mitre
   * misses their edge by a rounding, and the bake found the way out through that.
   */
  readonly inside: readonly PlanPoint[];
}

/** Corners nearer than this to the one before are the same one. */
const MIN_SEGMENT_METRES = 1e-3;
/** A corner that turns by more than 126° is not mitred: its tip would be longer than the wall is thick. */
const MIN_MITRE_COSINE = -0.6;
/** Segments that turn by less than this, as the sine of the angle, need nothing between them. */
const STRAIGHT_SINE = 1e-9;

interface Line {
  readonly corner: string;
  readonly from: PlanPoint;
  readonly lengthMetres: number;
  readonly direction: PlanPoint;
}

/** How two lines meet. */
interface Joint {
  readonly isMitred: boolean;
  /** Tangent of half the turn, above 0 to the left; 0 where it is not mitred. */
  readonly slant: number;
}

const OPEN: Joint = { isMitred: false, slant: 0 };
const dot = (a: PlanPoint, b: PlanPoint): number => a[0] * b[0] + a[1] * b[1];
/** Above 0 where b turns to the right of a, seen from above with z towards the viewer. */
const cross = (a: PlanPoint, b: PlanPoint): number => a[0] * b[1] - a[1] * b[0];
const minus = ([nx, nz, offset]: HalfPlane): HalfPlane => [-nx + 0, -nz + 0, -offset + 0];
const through = (normal: PlanPoint, point: PlanPoint): HalfPlane => [normal[0], normal[1], dot(normal, point)];

/**
 * The plan of a wall: its segments, mitred where they meet. A corner that turns too sharply, or whose segments are too short for
 * the mitre, has both segments end across at it and a triangle over its outside; so every corner is filled.
 * Corners within a millimetre of the one before are left out. Without two corners apart there are no segments.
 */
export function wallPlan({
  corners,
  closed,
  thicknessMetres,
}: Pick<Wall, 'corners' | 'closed' | 'thicknessMetres'>): WallPlan {
  const half = thicknessMetres / 2;
  const lines = linesOf(corners, closed);
  const isRing = closed && lines.length > 2;
  const joints = jointsOf(lines, isRing, half);
  const segments = lines.map((line, i): WallSegment => {
    const { direction, from, lengthMetres } = line;
    const [before, after] = [joints[i], joints[(i + 1) % joints.length]];
    const to: PlanPoint = [from[0] + direction[0] * lengthMetres, from[1] + direction[1] * lengthMetres];
    const next = lines[(i + 1) % lines.length];
    const left: PlanPoint = [direction[1], -direction[0]];
    const middle = dot(left, from);
    return {
      ...line,
      faces: [
        [left[0], left[1], middle + half],
        [-left[0] + 0, -left[1] + 0, half - middle],
      ],
      ends: [
        minus(through(before.isMitred ? sum(lines.at(i - 1)?.direction ?? direction, direction) : direction, from)),
        // The next one begins in the very same plane.
        after.isMitred
          ? through(sum(direction, next.direction), next.from)
          : through(direction, isRing || i + 1 < lines.length ? next.from : to),
      ],
      whole: [half * Math.abs(before.slant), lengthMetres - half * Math.abs(after.slant)],
    };
  });
  return {
    segments,
    wedges: lines.flatMap((line, i) => wedgeAt(line, joints[i], i > 0 || isRing ? lines.at(i - 1) : undefined, half)),
    inside: isRing ? lines.map(({ from }) => from) : [],
  };
}

const sum = (a: PlanPoint, b: PlanPoint): PlanPoint => [a[0] + b[0], a[1] + b[1]];

function linesOf(corners: Wall['corners'], closed: boolean): Line[] {
  const [ox, oz] = corners[0].position;
  const points = corners.map(({ id, position }) => ({
    id,
    at: [position[0] - ox, position[1] - oz] as PlanPoint,
  }));
  const apart = (a: PlanPoint, b: PlanPoint): number => {
    const d: PlanPoint = [b[0] - a[0], b[1] - a[1]];
    return Math.sqrt(dot(d, d));
  };
  const kept = points.slice(0, 1);
  for (const point of points.slice(1))
    if (apart(kept[kept.length - 1].at, point.at) >= MIN_SEGMENT_METRES) kept.push(point);
  if (closed && kept.length > 1 && apart(kept[kept.length - 1].at, kept[0].at) < MIN_SEGMENT_METRES) kept.pop();
  const ends = closed && kept.length > 2 ? [...kept.slice(1), kept[0]] : kept.slice(1);
  return ends.map(({ at }, i) => {
    const { id, at: from } = kept[i];
    const lengthMetres = apart(from, at);
    return {
      corner: id,
      from,
      lengthMetres,
      direction: [(at[0] - from[0]) / lengthMetres, (at[1] - from[1]) / lengthMetres],
    };
  });
}

/** The joint at the beginning of each line, and of an open wall the one at its end. */
function jointsOf(lines: readonly Line[], isRing: boolean, half: number): Joint[] {
  const joints = lines.map((line, i): Joint => {
    const before = i > 0 || isRing ? lines.at(i - 1) : undefined;
    if (!before) return OPEN;
    const cosine = dot(before.direction, line.direction);
    if (cosine < MIN_MITRE_COSINE) return OPEN;
    return { isMitred: true, slant: -cross(before.direction, line.direction) / (1 + cosine) };
  });
  if (!isRing) joints.push(OPEN);
  const tooShort = lines.flatMap(({ lengthMetres }, i) => {
    const ends = [i, (i + 1) % joints.length];
    // Its left face is shorter, or its right one.
    return half * Math.abs(joints[ends[0]].slant + joints[ends[1]].slant) < lengthMetres * (1 - 1e-9) ? [] : ends;
  });
  for (const at of tooShort) joints[at] = OPEN;
  return joints;
}

/** What fills the outside of a corner whose segments end across. */
function wedgeAt(
  { corner, from, direction }: Line,
  { isMitred }: Joint,
  before: Line | undefined,
  half: number,
): WallPlan['wedges'] {
  if (!before || isMitred) return [];
  const turn = cross(before.direction, direction);
  if (Math.abs(turn) < STRAIGHT_SINE) return [];
  const side = turn > 0 ? 1 : -1;
  const outward = ([x, z]: PlanPoint): PlanPoint => [side * z, -side * x];
  const bevel = sum(outward(before.direction), outward(direction));
  const [nx, nz, offset] = through(bevel, from);
  return [
    {
      corner,
      sides: [
        minus(through(before.direction, from)),
        through(direction, from),
        [nx, nz, offset + half * dot(bevel, outward(direction))],
      ],
    },
  ];
}
