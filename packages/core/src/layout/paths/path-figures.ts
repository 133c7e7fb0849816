import type { Path } from '../../model/level-path';
import type { Vector3 } from '../../model/vector';
import { bendOfPiece, lengthOfPiece, norm, pathPieces, pathPoints, velocityOfPiece } from './path-curve';

/** What a path measures. */
export interface PathFigures {
  readonly lengthMetres: number;
  /** Steepest rise over run, as a share: 0.1 is one in ten. Infinity where it goes straight up. */
  readonly steepestSlope: number;
  /** Tightest radius of its bends, metres; Infinity when it is straight, 0 where a polyline has a corner. */
  readonly tightestRadiusMetres: number;
}

/** Points of t at which slope and bend of a curved piece are read; between the best and its neighbours it is looked closer. */
const READINGS = 512;
/** Steps of a line that distances are measured to. */
const LINE_STEPS = 32;
const CLOSER_LOOKS = 40;

/** Length, slope and tightest radius of a path. */
export function pathFigures(path: Pick<Path, 'form' | 'closed' | 'knots'>): PathFigures {
  const pieces = pathPieces(path);
  let [slope, radius] = [0, Infinity];
  for (const piece of pieces) {
    // A straight piece is the same everywhere.
    const readings = path.form === 'curve' ? READINGS : 1;
    slope = Math.max(slope, -least((t) => -slopeOf(velocityOfPiece(piece, t)), readings));
    if (path.form === 'curve')
      radius = Math.min(
        radius,
        least((t) => radiusOf(velocityOfPiece(piece, t), bendOfPiece(piece, t)), readings),
      );
  }
  if (path.form === 'polyline' && hasCorner(pieces, path.closed)) radius = 0;
  return {
    lengthMetres: pieces.reduce((sum, piece) => sum + lengthOfPiece(piece), 0),
    steepestSlope: slope,
    tightestRadiusMetres: radius,
  };
}

/** The least of readings of a function over 0 to 1, looked at closer around the least of them (by thirds). */
function least(read: (t: number) => number, readings: number): number {
  let [best, at] = [Infinity, 0];
  for (let i = 0; i <= readings; i++) {
    const value = read(i / readings);
    if (value < best) [best, at] = [value, i / readings];
  }
  let [low, high] = [Math.max(0, at - 1 / readings), Math.min(1, at + 1 / readings)];
  for (let i = 0; i < CLOSER_LOOKS && readings > 1; i++) {
    const [a, b] = [low + (high - low) / 3, high - (high - low) / 3];
    const [left, right] = [read(a), read(b)];
    best = Math.min(best, left, right);
    if (left <= right) high = b;
    else low = a;
  }
  return best;
}

/** Rise over run of a direction; 0 where it has none. */
function slopeOf(velocity: Vector3): number {
  const run = Math.sqrt(velocity[0] * velocity[0] + velocity[2] * velocity[2]);
  return run > 0 || velocity[1] !== 0 ? Math.abs(velocity[1]) / run : 0;
}

/** Distance of points from a path, metres: to the nearest point of its drawn line. */
export function distancesFromPath(path: Pick<Path, 'form' | 'closed' | 'knots'>, points: readonly Vector3[]): number[] {
  const line = pathPoints(path, LINE_STEPS);
  return points.map((point) => {
    let nearest = Infinity;
    for (let i = 0; i < Math.max(3, line.length - 3); i += 3)
      nearest = Math.min(nearest, distanceToSegment(point, line, i));
    return Math.sqrt(nearest);
  });
}

/** Square of the distance of a point to a segment of a line. */
function distanceToSegment(point: Vector3, line: Float64Array, at: number): number {
  const end = at + 3 < line.length ? at + 3 : at;
  let [dot, square] = [0, 0];
  for (let k = 0; k < 3; k++) {
    const along = line[end + k] - line[at + k];
    dot += along * (point[k] - line[at + k]);
    square += along * along;
  }
  const t = square > 0 ? Math.min(1, Math.max(0, dot / square)) : 0;
  let sum = 0;
  for (let k = 0; k < 3; k++) {
    const off = line[at + k] + t * (line[end + k] - line[at + k]) - point[k];
    sum += off * off;
  }
  return sum;
}

/** |v|³ / |v × a| */
function radiusOf(v: Vector3, a: Vector3): number {
  const cross = norm([v[1] * a[2] - v[2] * a[1], v[2] * a[0] - v[0] * a[2], v[0] * a[1] - v[1] * a[0]]);
  const speed = norm(v);
  return cross > 1e-12 * speed * speed * speed ? (speed * speed * speed) / cross : Infinity;
}

function hasCorner(pieces: ReturnType<typeof pathPieces>, closed: boolean): boolean {
  return pieces.some((piece, i) => {
    const next = pieces[i + 1] ?? (closed ? pieces[0] : undefined);
    if (!next) return false;
    const [u, v] = [velocityOfPiece(piece, 1), velocityOfPiece(next, 0)];
    const along = (u[0] * v[0] + u[1] * v[1] + u[2] * v[2]) / (norm(u) * norm(v));
    return along < 1 - 1e-9;
  });
}
