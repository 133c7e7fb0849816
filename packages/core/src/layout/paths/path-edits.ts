import { CoreError } from '../../errors';
import type { Knot, Path } from '../../model/level-path';
import type { Vector3 } from '../../model/vector';
import { toMicro, vectorToMicro } from '../../numeric/micro';
import { withKnotIds, type NewKnot } from './knot-ids';
import { lengthOfPiece, norm, parameterAtLength, pathPieces, pointOfPiece, pull, velocityOfPiece } from './path-curve';

/**
 * Knots at equal spacing along the arc, the last piece shorter or none; a path shorter than the spacing keeps its two ends. Widths run from knot to knot; tags stay with the
 * new knot nearest to theirs, an id with a new knot in its place. The result is a polyline over a straight path, a curve over a curve.
 * @param spacingMetres above 0
 * @param mostKnots the path is refused rather than spaced wider
 * @throws CoreError 'PATH_KNOTS' when it would need more knots, 'PATH_EMPTY' when the path has no length
 */
export function resamplePath(path: Path, spacingMetres: number, mostKnots: number): Knot[] {
  if (!(spacingMetres > 0))
    throw new CoreError('PATH_SPACING', `resample: the spacing is ${spacingMetres} m, must be above 0`);
  const pieces = pathPieces(path);
  const lengths = pieces.map((piece) => lengthOfPiece(piece));
  const total = lengths.reduce((sum, length) => sum + length, 0);
  if (!(total > 0)) throw new CoreError('PATH_EMPTY', `resample: all ${path.knots.length} knots are in one place`);
  // Fewer than three knots enclose nothing: a short closed path is spaced narrower.
  const spacing = path.closed ? Math.min(spacingMetres, total / 3) : spacingMetres;
  const steps = Math.floor(total / spacing + 1e-9);
  const isWhole = steps > 0 && Math.abs(steps * spacing - total) <= 1e-6 * total;
  const count = path.closed ? steps + (isWhole ? 0 : 1) : steps + (isWhole ? 1 : 2);
  if (count > mostKnots)
    throw new CoreError(
      'PATH_KNOTS',
      `resample: ${spacingMetres} m over ${total.toFixed(2)} m needs ${count} knots, the limit is ${mostKnots}`,
      { count },
    );
  const knots: NewKnot[] = [];
  const ends = lengths.map(
    (
      (sum) => (length: number) =>
        (sum += length)
    )(0),
  );
  const distinct = knotsOfPieces(path);
  // An open path ends where it ended, however the spacing comes out.
  const distanceOf = (i: number): number => (!path.closed && i === count - 1 ? total : Math.min(total, i * spacing));
  /** How far the next knot lies, along the path. */
  const gapAfter = (i: number): number =>
    i + 1 < count ? distanceOf(i + 1) - distanceOf(i) : path.closed ? total - distanceOf(i) : Infinity;
  const gapBefore = (i: number): number => (i > 0 ? gapAfter(i - 1) : path.closed ? gapAfter(count - 1) : Infinity);
  let piece = 0;
  for (let i = 0; i < count; i++) {
    const at = distanceOf(i);
    while (piece < pieces.length - 1 && at > ends[piece] + 1e-12) piece++;
    const start = ends[piece] - lengths[piece];
    const t = parameterAtLength(pieces[piece], Math.min(lengths[piece], at - start), lengths[piece]);
    const [a, b] = distinct[piece];
    knots.push({
      position: vectorToMicro(pointOfPiece(pieces[piece], t)),
      widthMetres: toMicro(a.widthMetres + (b.widthMetres - a.widthMetres) * t),
      tags: [],
      handle:
        path.form === 'curve'
          ? handleFor(velocityOfPiece(pieces[piece], t), Math.min(gapBefore(i), gapAfter(i)))
          : null,
    });
  }
  const ids = new Map(path.knots.map(({ id, position }) => [position.join(), id]));
  return withKnotIds(withTags(knots, path.knots).map((knot) => ({ ...knot, id: ids.get(knot.position.join()) })));
}

/** The same path at a distance to its right on the plan (to its left below 0), knot by knot; heights stay. Metres. */
export function offsetKnots({ knots, closed }: Path, metres: number): Knot[] {
  return knots.map((knot, i) => {
    const [dx, , dz] = pull(knots, closed, i);
    const length = Math.sqrt(dx * dx + dz * dz);
    if (length === 0) return knot;
    const [x, y, z] = knot.position;
    return { ...knot, position: vectorToMicro([x - (dz / length) * metres, y, z + (dx / length) * metres]) };
  });
}

/** The same path the other way. */
export function reversedKnots({ knots }: Path): Knot[] {
  return [...knots].reverse().map((knot) => ({
    ...knot,
    handle: knot.handle && vectorToMicro([-knot.handle[0], -knot.handle[1], -knot.handle[2]]),
  }));
}

/** One path out of two open ones, joined where their ends are nearest; ends in one place become one knot. The first keeps
 * its ids, the second those that are free. @throws CoreError 'PATH_CLOSED' */
export function joinedKnots(first: Path, second: Path): Knot[] {
  for (const path of [first, second])
    if (path.closed)
      throw new CoreError('PATH_CLOSED', `join: ${path.name || path.id} is closed and has no end`, { path: path.id });
  const between = (a: Knot, b: Knot): number =>
    norm([a.position[0] - b.position[0], a.position[1] - b.position[1], a.position[2] - b.position[2]]);
  const ways = [
    [first.knots, second.knots],
    [first.knots, reversedKnots(second)],
    [reversedKnots(first), second.knots],
    [reversedKnots(first), reversedKnots(second)],
  ] as const;
  const gaps = ways.map(([a, b]) => between(a[a.length - 1], b[0]));
  const [a, b] = ways[gaps.indexOf(Math.min(...gaps))];
  // Who comes first keeps an id, and it is the first path's knots that do.
  const kept = new Set(first.knots.map(({ id }) => id));
  const freed = (knots: readonly Knot[]): NewKnot[] =>
    knots.map((knot) => (!kept.has(knot.id) ? knot : { ...knot, id: undefined }));
  return withKnotIds([...a, ...freed(Math.min(...gaps) < 1e-6 ? b.slice(1) : b)]);
}

/** The two knots of each piece, without those in one place. */
function knotsOfPieces({ knots, closed }: Path): (readonly [Knot, Knot])[] {
  const pairs: (readonly [Knot, Knot])[] = [];
  for (let i = 0; i < (closed ? knots.length : knots.length - 1); i++) {
    const [a, b] = [knots[i], knots[(i + 1) % knots.length]];
    if (!a.position.every((value, k) => value === b.position[k])) pairs.push([a, b]);
  }
  return pairs;
}

/** A third of the shorter piece at a knot: longer, and the curve would run back within it. */
function handleFor(velocity: Vector3, gapMetres: number): Vector3 {
  const length = norm(velocity) || 1;
  return vectorToMicro([
    (velocity[0] / length) * (gapMetres / 3),
    (velocity[1] / length) * (gapMetres / 3),
    (velocity[2] / length) * (gapMetres / 3),
  ]);
}

function withTags(knots: readonly NewKnot[], before: readonly Knot[]): NewKnot[] {
  const tags = knots.map(() => new Set<string>());
  for (const knot of before) {
    if (knot.tags.length === 0) continue;
    const far = knots.map(({ position }) =>
      norm([position[0] - knot.position[0], position[1] - knot.position[1], position[2] - knot.position[2]]),
    );
    const nearest = far.indexOf(Math.min(...far));
    for (const tag of knot.tags) tags[nearest].add(tag);
  }
  return knots.map((knot, i) => ({ ...knot, tags: [...tags[i]] }));
}
