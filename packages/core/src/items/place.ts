import { turnMatrix, turnVector } from '../geometry/turn';
import type { Json } from '../model/json';
import type { PlanPoint, TurnDegrees, Vector3 } from '../model/vector';
import { toMicro, vectorToMicro, wholeTurn } from '../numeric/micro';

/** New values of the fields that change. */
export type ChangedFields = Readonly<Record<string, Json>>;

/** How things of a kind stand in the level. Lengths in metres, turns in degrees. */
export interface Place<T> {
  /** The point that one is placed by. */
  readonly anchor: (item: T) => Vector3;
  readonly moved: (item: T, by: Vector3) => Partial<T>;
  readonly turned: (item: T, turning: Turning) => Partial<T>;
  readonly mirrored: (item: T, mirroring: Mirroring) => Partial<T>;
  /** Only the parts within move; absent where all of it moves always. Nothing where no part lies within. */
  readonly movedWithin?: (item: T, isWithin: (point: Vector3) => boolean, by: Vector3) => Partial<T>;
  /** Turned, and scaled where that is its own, where it stands; absent for what keeps its direction. */
  readonly varied?: (item: T, degrees: number, scale: number) => Partial<T>;
}

/** How what can be turned any way is varied. */
export function variedTurn(
  { turn: [yaw, pitch, roll] }: { readonly turn: TurnDegrees },
  degrees: number,
): { readonly turn: TurnDegrees } {
  return { turn: [wholeTurn(yaw + degrees), pitch, roll] };
}

/** A turn about an upright axis, counter-clockwise seen from above. */
export interface Turning {
  readonly degrees: number;
  readonly point: (point: Vector3) => Vector3;
  readonly flat: (point: PlanPoint) => PlanPoint;
  /** A direction: turned, not moved. */
  readonly direction: (vector: Vector3) => Vector3;
}

export function turningAbout(degrees: number, about: PlanPoint): Turning {
  const m = turnMatrix([degrees, 0, 0]);
  const point = ([x, y, z]: Vector3): Vector3 => {
    const [dx, dy, dz] = turnVector(m, x - about[0], y, z - about[1]);
    return vectorToMicro([dx + about[0], dy, dz + about[1]]);
  };
  return {
    degrees,
    point,
    flat: ([x, z]) => {
      const [px, , pz] = point([x, 0, z]);
      return [px, pz];
    },
    direction: ([x, y, z]) => vectorToMicro(turnVector(m, x, y, z)),
  };
}

/** A mirror in an upright plane across the x or the z axis. */
export interface Mirroring {
  readonly point: (point: Vector3) => Vector3;
  readonly flat: (point: PlanPoint) => PlanPoint;
  readonly direction: (vector: Vector3) => Vector3;
  readonly yaw: (yaw: number) => number;
  /** Whether pieces become their own mirror image, or change place and direction alone. */
  readonly mirrorsPieces: boolean;
  /** The turn of a thing whose own x axis is mirrored along with the world: S · M · S' with S' across the thing's own x. */
  readonly turn: (turn: TurnDegrees) => TurnDegrees;
}

/** @param at where the plane stands on that axis, metres */
export function mirroringAt(axis: 'x' | 'z', at: number, mirrorsPieces: boolean): Mirroring {
  const k = axis === 'x' ? 0 : 2;
  const over = ([x, y, z]: Vector3, of: (value: number) => number): Vector3 =>
    vectorToMicro(k === 0 ? [of(x), y, z] : [x, y, of(z)]);
  const yaw = (value: number): number => wholeTurn(axis === 'x' ? -value : 180 - value);
  return {
    point: (point) => over(point, (value) => 2 * at - value),
    flat: ([x, z]) => [toMicro(k === 0 ? 2 * at - x : x), toMicro(k === 2 ? 2 * at - z : z)],
    direction: (vector) => over(vector, (value) => -value),
    mirrorsPieces,
    yaw,
    turn: ([y, pitch, roll]) => [yaw(y), pitch, toMicro(-roll)],
  };
}

export function movedPoint([x, y, z]: Vector3, by: Vector3): Vector3 {
  return [toMicro(x + by[0]), toMicro(y + by[1]), toMicro(z + by[2])];
}

interface Standing {
  readonly position: Vector3;
}

const anchor = ({ position }: Standing): Vector3 => position;
const moved = ({ position }: Standing, by: Vector3): { readonly position: Vector3 } => ({
  position: movedPoint(position, by),
});

/** What stands on the grid of the level: it moves and keeps its direction. */
export const GRID_PLACE: Place<Standing> = {
  anchor,
  moved,
  turned: ({ position }, turning) => ({ position: turning.point(position) }),
  mirrored: ({ position }, mirroring) => ({ position: mirroring.point(position) }),
};

/** What looks in a direction of the plan. */
export const YAW_PLACE: Place<Standing & { readonly turn: number }> = {
  anchor,
  moved,
  turned: ({ position, turn }, turning) => ({
    position: turning.point(position),
    turn: wholeTurn(turn + turning.degrees),
  }),
  mirrored: ({ position, turn }, mirroring) => ({ position: mirroring.point(position), turn: mirroring.yaw(turn) }),
};

/** What can be turned any way; mirrored it changes place and direction alone, as what it shows is not its own. */
export const TURN_PLACE: Place<Standing & { readonly turn: TurnDegrees }> = {
  anchor,
  moved,
  turned: ({ position, turn: [yaw, pitch, roll] }, turning) => ({
    position: turning.point(position),
    turn: [wholeTurn(yaw + turning.degrees), pitch, roll],
  }),
  mirrored: ({ position, turn }, mirroring) => ({
    position: mirroring.point(position),
    turn: mirroring.turn(turn),
  }),
};
