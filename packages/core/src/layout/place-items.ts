import { turnMatrix, turnVector } from '../geometry/turn';
import type { BlockPlane } from '../model/block';
import type { Divider } from '../model/divider';
import type { Json } from '../model/json';
import type { Path } from '../model/level-path';
import type { ItemKind, ItemOfKind } from '../model/stratum';
import type { PlanPoint, TurnDegrees, Vector3 } from '../model/vector';
import { toMicro, vectorToMicro, wholeTurn } from '../numeric/micro';

/** The kinds of item that have a place in the level. */
export const PLACED_KINDS = [
  'block',
  'placement',
  'marker',
  'divider',
  'volume',
  'path',
  'tileFloor',
  'mask',
  'recipe',
  'assembly',
] as const satisfies readonly ItemKind[];
export type PlacedKind = (typeof PLACED_KINDS)[number];
/** An item that has a place, with its kind. */
export type PlacedItemOf = { [K in PlacedKind]: { readonly kind: K; readonly item: ItemOfKind[K] } }[PlacedKind];

/** New values of the fields that change. */
export type ChangedFields = Readonly<Record<string, Json>>;

/** The point that an item is placed by, metres: the middle of a divider or a path. */
export function anchorOf({ kind, item }: PlacedItemOf): Vector3 {
  if (kind === 'divider') return [(item.from[0] + item.to[0]) / 2, item.bottom, (item.from[1] + item.to[1]) / 2];
  if (kind !== 'path') return item.position;
  const sum = item.knots.reduce<Vector3>(
    ([x, y, z], { position: [px, py, pz] }) => [x + px, y + py, z + pz],
    [0, 0, 0],
  );
  return [sum[0] / item.knots.length, sum[1] / item.knots.length, sum[2] / item.knots.length];
}

/** Moves an item. @param by metres */
export function movedFields({ kind, item }: PlacedItemOf, by: Vector3): ChangedFields {
  if (kind === 'divider') return moveDivider(item, by);
  const moved = ([x, y, z]: Vector3): Json => [toMicro(x + by[0]), toMicro(y + by[1]), toMicro(z + by[2])];
  if (kind === 'path')
    return { knots: item.knots.map((knot) => ({ ...knot, position: moved(knot.position) })) as unknown as Json };
  return { position: moved(item.position) };
}

/** Turns an item about an upright axis through a point of the plan. Degrees, counter-clockwise seen from above. Grids (sections, tile floors, masks) do not turn: they move. */
export function turnedFields({ kind, item }: PlacedItemOf, degrees: number, about: PlanPoint): ChangedFields {
  const m = turnMatrix([degrees, 0, 0]);
  const turned = (x: number, y: number, z: number): Vector3 => {
    const [dx, dy, dz] = turnVector(m, x - about[0], y, z - about[1]);
    return vectorToMicro([dx + about[0], dy, dz + about[1]]);
  };
  const flat = ([x, z]: PlanPoint): Json => {
    const p = turned(x, 0, z);
    return [p[0], p[2]];
  };
  if (kind === 'divider') return { from: flat(item.from), to: flat(item.to) };
  if (kind === 'path') {
    const handle = (one: Vector3 | null): Vector3 | null => one && vectorToMicro(turnVector(m, one[0], one[1], one[2]));
    return {
      knots: item.knots.map((knot) => ({
        ...knot,
        position: turned(...knot.position),
        handle: handle(knot.handle),
      })) as unknown as Json,
    };
  }
  const position = turned(...item.position) as unknown as Json;
  if (kind === 'recipe' || kind === 'tileFloor' || kind === 'mask') return { position };
  if (kind === 'marker' || kind === 'assembly') return { position, turn: wholeTurn(item.turn + degrees) };
  const [yaw, pitch, roll] = item.turn;
  return { position, turn: [wholeTurn(yaw + degrees), pitch, roll] };
}

/**
 * Mirrors an item in an upright plane across the x or the z axis. Blocks, volumes and paths are mirrored in themselves;
 * placements, markers and sections only change place and direction, as what they show is not theirs.
 * @param at where the plane stands on that axis, metres
 */
export function mirroredFields({ kind, item }: PlacedItemOf, axis: 'x' | 'z', at: number): ChangedFields {
  const k = axis === 'x' ? 0 : 2;
  const point = (p: Vector3): Vector3 =>
    vectorToMicro(p.map((value, i) => (i === k ? 2 * at - value : value)) as unknown as Vector3);
  const flat = (p: PlanPoint): PlanPoint => [
    toMicro(k === 0 ? 2 * at - p[0] : p[0]),
    toMicro(k === 2 ? 2 * at - p[1] : p[1]),
  ];
  if (kind === 'divider') return { from: flat(item.from) as unknown as Json, to: flat(item.to) as unknown as Json };
  if (kind === 'path') {
    const handle = (one: Vector3 | null): Vector3 | null =>
      one && vectorToMicro(one.map((value, i) => (i === k ? -value : value)) as unknown as Vector3);
    return {
      knots: item.knots.map((knot) => ({
        ...knot,
        position: point(knot.position),
        handle: handle(knot.handle),
      })) as unknown as Json,
    };
  }
  const position = point(item.position) as unknown as Json;
  if (kind === 'recipe' || kind === 'tileFloor' || kind === 'mask') return { position };
  if (kind === 'marker' || kind === 'assembly')
    return { position, turn: wholeTurn(axis === 'x' ? -item.turn : 180 - item.turn) };
  const turn = mirroredTurn(item.turn, axis);
  if (kind === 'block') return { position, turn, planes: item.planes.map(mirrorPlane) as unknown as Json };
  if (kind === 'volume' && item.shape.form === 'prism')
    return {
      position,
      turn,
      shape: { ...item.shape, outline: item.shape.outline.map(([x, z]) => [toMicro(-x), z]) } as unknown as Json,
    };
  return { position, turn };
}

/** Only the knots of a path within a box move, or all of any other item. Empty when nothing of it lies there. @param min, max metres */
export function movedWithin(placed: PlacedItemOf, min: Vector3, max: Vector3, by: Vector3): ChangedFields {
  const inside = (p: Vector3): boolean => p.every((value, k) => value >= min[k] && value <= max[k]);
  if (placed.kind !== 'path') return movedFields(placed, by);
  const { knots } = placed.item;
  if (!knots.some(({ position }) => inside(position))) return {};
  const moved = movedFields(placed, by)['knots'] as unknown as Path['knots'];
  return { knots: knots.map((knot, i) => (inside(knot.position) ? moved[i] : knot)) as unknown as Json };
}

function moveDivider({ from, to, bottom, top }: Divider, by: Vector3): ChangedFields {
  const flat = {
    from: [toMicro(from[0] + by[0]), toMicro(from[1] + by[2])],
    to: [toMicro(to[0] + by[0]), toMicro(to[1] + by[2])],
  };
  return by[1] === 0 ? flat : { ...flat, bottom: toMicro(bottom + by[1]), top: toMicro(top + by[1]) };
}

/** The turn of a thing whose own x axis is mirrored along with the world: S · M · S' with S' across the thing's own x. */
function mirroredTurn([yaw, pitch, roll]: TurnDegrees, axis: 'x' | 'z'): Json {
  return [wholeTurn(axis === 'x' ? -yaw : 180 - yaw), pitch, toMicro(-roll)];
}

function mirrorPlane([nx, ny, nz, offset]: BlockPlane): BlockPlane {
  return [-nx + 0, ny, nz, offset];
}
