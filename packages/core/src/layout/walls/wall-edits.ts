import { CoreError } from '../../errors';
import type { PlanPoint } from '../../model/vector';
import type { Wall, WallCorner, WallOpening } from '../../model/wall';
import { toMicro } from '../../numeric/micro';
import { wallPlan } from './wall-segments';

/** A place along a wall. */
export interface PlaceOnWall {
  /** Corner at which its segment begins. */
  readonly corner: string;
  readonly offsetMetres: number;
  /** From the wall's line to the point that was asked about. */
  readonly awayMetres: number;
}

/** The place on a wall's line nearest to a point of the plan; undefined where the wall has no segments. Of two equally near the first. */
export function placeOnWall(wall: Wall, [x, z]: PlanPoint): PlaceOnWall | undefined {
  const [ox, oz] = wall.corners[0].position;
  let nearest: PlaceOnWall | undefined;
  for (const { corner, from, direction, lengthMetres } of wallPlan(wall).segments) {
    const [dx, dz] = [x - ox - from[0], z - oz - from[1]];
    const offsetMetres = Math.min(lengthMetres, Math.max(0, dx * direction[0] + dz * direction[1]));
    const [ax, az] = [dx - offsetMetres * direction[0], dz - offsetMetres * direction[1]];
    const awayMetres = Math.sqrt(ax * ax + az * az);
    if (!nearest || awayMetres < nearest.awayMetres)
      nearest = { corner, offsetMetres: toMicro(offsetMetres), awayMetres };
  }
  return nearest;
}

/**
 * An opening's middle moved along its segment as little as must be for all of it to lie where the wall is whole;
 * the middle of the segment where it is too wide for that.
 */
export function fittedOffset(wall: Wall, corner: string, offsetMetres: number, widthMetres: number): number {
  const segment = wallPlan(wall).segments.find((one) => one.corner === corner);
  if (!segment) return offsetMetres;
  const [low, high] = [segment.whole[0] + widthMetres / 2, segment.whole[1] - widthMetres / 2];
  return toMicro(low > high ? (segment.whole[0] + segment.whole[1]) / 2 : Math.min(high, Math.max(low, offsetMetres)));
}

type Line = Pick<Wall, 'corners' | 'openings'>;

/** A wall with another corner on its line; openings behind it begin there. @param at as `placeOnWall` gives it */
export function withCorner(wall: Wall, at: PlaceOnWall, id: string): Line {
  const index = wall.corners.findIndex((corner) => corner.id === at.corner);
  const segment = wallPlan(wall).segments.find(({ corner }) => corner === at.corner);
  if (!segment)
    throw new CoreError('WALL_CORNER_GONE', `wall: it has no segment that begins at the corner ${at.corner}`);
  const [ox, oz] = wall.corners[0].position;
  const position: PlanPoint = [
    toMicro(ox + segment.from[0] + segment.direction[0] * at.offsetMetres),
    toMicro(oz + segment.from[1] + segment.direction[1] * at.offsetMetres),
  ];
  return {
    corners: [...wall.corners.slice(0, index + 1), { id, position }, ...wall.corners.slice(index + 1)],
    openings: wall.openings.map((opening) =>
      opening.corner === at.corner && opening.offsetMetres > at.offsetMetres
        ? { ...opening, corner: id, offsetMetres: toMicro(opening.offsetMetres - at.offsetMetres) }
        : opening,
    ),
  };
}

/**
 * A wall without one of its corners. Openings of the segment that began there go on to the one before, as far along as they stood;
 * those that have no segment any more go with it.
 * @throws CoreError 'WALL_TOO_SHORT' when fewer than two corners would be left
 */
export function withoutCorner(wall: Wall, id: string): Line {
  if (wall.corners.length <= 2)
    throw new CoreError('WALL_TOO_SHORT', 'wall: it needs two corners; delete the wall itself instead');
  const index = wall.corners.findIndex((corner) => corner.id === id);
  const corners = wall.corners.filter((corner) => corner.id !== id);
  const isEnd = !wall.closed && (index === 0 || index === wall.corners.length - 1);
  const before = wall.corners.at(index - 1);
  const length = isEnd || !before ? 0 : apart(before, wall.corners[index]);
  const last = wall.closed ? undefined : corners[corners.length - 1].id;
  return {
    corners,
    openings: wall.openings
      .flatMap((opening) =>
        opening.corner !== id
          ? [opening]
          : isEnd || !before
            ? []
            : [{ ...opening, corner: before.id, offsetMetres: toMicro(opening.offsetMetres + length) }],
      )
      .filter(({ corner }) => corner !== last),
  };
}

/** An opening of a usual size that is no higher than its wall. @param sillMetres 0 for a door */
export function newOpening(
  wall: Wall,
  { corner, offsetMetres }: PlaceOnWall,
  { widthMetres, sillMetres, headMetres }: Pick<WallOpening, 'widthMetres' | 'sillMetres' | 'headMetres'>,
  id: string,
): WallOpening {
  const head = Math.min(headMetres, wall.heightMetres);
  return {
    id,
    corner,
    offsetMetres: fittedOffset(wall, corner, offsetMetres, widthMetres),
    widthMetres,
    sillMetres: sillMetres < head ? sillMetres : 0,
    headMetres: head,
  };
}

function apart({ position: a }: WallCorner, { position: b }: WallCorner): number {
  return Math.sqrt((b[0] - a[0]) * (b[0] - a[0]) + (b[1] - a[1]) * (b[1] - a[1]));
}
