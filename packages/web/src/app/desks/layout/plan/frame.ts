import {
  toMicro,
  turnMatrix,
  turnVector,
  vectorToMicro,
  yawOfDirection,
  type PlanPoint,
  type Vector3,
} from '@stravel/core';

/** A grip on the plan: a side or corner of the item's own frame, or the knob that turns it. */
export type Handle =
  { readonly kind: 'size'; readonly x: -1 | 0 | 1; readonly z: -1 | 0 | 1 } | { readonly kind: 'turn' };

/** Least and greatest local x and z, metres. */
export interface PlanExtent {
  readonly low: PlanPoint;
  readonly high: PlanPoint;
}

/** The upright frame of one thing: where its grips are. */
export interface HandleFrame {
  readonly position: Vector3;
  /** Degrees. */
  readonly yaw: number;
  readonly extent: PlanExtent;
}

const SIDES = [-1, 0, 1] as const;
/** The knob stands this many pixels beyond the item. */
const KNOB_PIXELS = 26;
/** Sides shorter than this carry no grips at their corners. */
const ROOM_PIXELS = 28;
/** Least size that a grip can give, metres. */
const MIN_METRES = 0.05;

/** The frame of a thing that stands upright; undefined for one that leans, which the card can still change. */
export function uprightFrame(
  { position, turn }: { readonly position: Vector3; readonly turn: readonly [number, number, number] },
  { min, max }: { readonly min: Vector3; readonly max: Vector3 },
): HandleFrame | undefined {
  if (turn[1] !== 0 || turn[2] !== 0) return undefined;
  return { position, yaw: turn[0], extent: { low: [min[0], min[2]], high: [max[0], max[2]] } };
}

/** All grips with their points on the plan; what is small on the screen keeps room to be dragged. */
export function handlesOf(frame: HandleFrame, metresPerPixel: number): { handle: Handle; at: PlanPoint }[] {
  const { low, high } = frame.extent;
  const along = (k: 0 | 1, side: number): number => (side === 0 ? (low[k] + high[k]) / 2 : side < 0 ? low[k] : high[k]);
  const isWide = [0, 1].map((k) => high[k] - low[k] >= ROOM_PIXELS * metresPerPixel);
  const hasRoom = (x: number, z: number): boolean =>
    x !== 0 && z !== 0 ? isWide[0] && isWide[1] : (x !== 0 || z !== 0) && (isWide[0] || isWide[1]);
  const grips = SIDES.flatMap((x) =>
    SIDES.filter((z) => hasRoom(x, z)).map((z) => ({
      handle: { kind: 'size', x, z } as const,
      at: toPlan(frame, [along(0, x), along(1, z)]),
    })),
  );
  return [
    ...grips,
    { handle: { kind: 'turn' }, at: toPlan(frame, [along(0, 0), low[1] - KNOB_PIXELS * metresPerPixel]) },
  ];
}

/** The extent after a grip was dragged to a point of the plan; the opposite side stays. */
export function draggedExtent(
  frame: HandleFrame,
  handle: Extract<Handle, { kind: 'size' }>,
  to: PlanPoint,
): PlanExtent {
  const local = toLocal(frame, to);
  const low: [number, number] = [...frame.extent.low];
  const high: [number, number] = [...frame.extent.high];
  [handle.x, handle.z].forEach((side, k) => {
    if (side < 0) low[k] = Math.min(local[k], high[k] - MIN_METRES);
    if (side > 0) high[k] = Math.max(local[k], low[k] + MIN_METRES);
  });
  return { low, high };
}

/** Size and place that a thing has to get to fill an extent: the other side stays. @param size as it is, metres */
export function stretchedTo(
  { position, yaw, extent }: HandleFrame,
  size: Vector3,
  to: PlanExtent,
): { readonly size: Vector3; readonly position: Vector3 } {
  const made: Vector3 = [toMicro(to.high[0] - to.low[0]), size[1], toMicro(to.high[1] - to.low[1])];
  const factors = [made[0] / (extent.high[0] - extent.low[0]), made[2] / (extent.high[1] - extent.low[1])];
  const [dx, , dz] = turnVector(
    turnMatrix([yaw, 0, 0]),
    to.low[0] - extent.low[0] * factors[0],
    0,
    to.low[1] - extent.low[1] * factors[1],
  );
  return { size: made, position: vectorToMicro([position[0] + dx, position[1], position[2] + dz]) };
}

/** Yaw that makes the knob point at a plan point, degrees; to whole steps of `stepDegrees`, 0 for free. */
export function yawTowards({ position }: HandleFrame, [x, z]: PlanPoint, stepDegrees: number): number {
  const yaw = yawOfDirection(x - position[0], z - position[2]);
  return toMicro(stepDegrees > 0 ? Math.round(yaw / stepDegrees) * stepDegrees : yaw);
}

/** Corners of an extent on the plan, in order. */
export function outlineOf(frame: HandleFrame, { low, high }: PlanExtent): PlanPoint[] {
  return [low, [high[0], low[1]] as const, high, [low[0], high[1]] as const].map((corner) => toPlan(frame, corner));
}

function toPlan({ position, yaw }: HandleFrame, [x, z]: PlanPoint): PlanPoint {
  const [dx, , dz] = turnVector(turnMatrix([yaw, 0, 0]), x, 0, z);
  return [position[0] + dx, position[2] + dz];
}

function toLocal({ position, yaw }: HandleFrame, [x, z]: PlanPoint): PlanPoint {
  const [lx, , lz] = turnVector(turnMatrix([-yaw, 0, 0]), x - position[0], 0, z - position[2]);
  return [lx, lz];
}
