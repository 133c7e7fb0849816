import type { Knot, Path } from '../../model/level-path';
import type { Vector3 } from '../../model/vector';

/** A cubic piece of a path: start, two pulls, end. A straight one has its pulls on the line. */
export type PathPiece = readonly [Vector3, Vector3, Vector3, Vector3];

/** The pieces of a path in order; a closed one comes back to its first knot. Pieces between two knots in one place are left out. */
export function pathPieces({ form, closed, knots }: Pick<Path, 'form' | 'closed' | 'knots'>): PathPiece[] {
  const count = knots.length;
  const pieces: PathPiece[] = [];
  for (let i = 0; i < (closed ? count : count - 1); i++) {
    const [a, b] = [knots[i], knots[(i + 1) % count]];
    if (a.position.every((value, k) => value === b.position[k])) continue;
    if (form === 'polyline')
      pieces.push([a.position, mix(a.position, b.position, 1 / 3), mix(a.position, b.position, 2 / 3), b.position]);
    else
      pieces.push([
        a.position,
        add(a.position, pull(knots, closed, i), 1),
        add(b.position, pull(knots, closed, (i + 1) % count), -1),
        b.position,
      ]);
  }
  return pieces;
}

/**
 * Direction and pull of a curve at a knot: its own, or a third of the tangent that its neighbours give.
 * Source: E. Catmull, R. Rom, A class of local interpolating splines, 1974 (uniform), as cubic Bézier pieces.
 */
export function pull(knots: readonly Knot[], closed: boolean, i: number): Vector3 {
  const own = knots[i].handle;
  if (own) return own;
  const count = knots.length;
  const before = knots[i > 0 ? i - 1 : closed ? count - 1 : 0].position;
  const after = knots[i < count - 1 ? i + 1 : closed ? 0 : count - 1].position;
  return [(after[0] - before[0]) / 6, (after[1] - before[1]) / 6, (after[2] - before[2]) / 6];
}

export function pointOfPiece([a, b, c, d]: PathPiece, t: number): Vector3 {
  const s = 1 - t;
  const [wa, wb, wc, wd] = [s * s * s, 3 * s * s * t, 3 * s * t * t, t * t * t];
  return [
    wa * a[0] + wb * b[0] + wc * c[0] + wd * d[0],
    wa * a[1] + wb * b[1] + wc * c[1] + wd * d[1],
    wa * a[2] + wb * b[2] + wc * c[2] + wd * d[2],
  ];
}

/** First derivative by t. */
export function velocityOfPiece([a, b, c, d]: PathPiece, t: number): Vector3 {
  const s = 1 - t;
  const [wb, wc, wd] = [3 * s * s, 6 * s * t, 3 * t * t];
  const of = (k: number): number => wb * (b[k] - a[k]) + wc * (c[k] - b[k]) + wd * (d[k] - c[k]);
  return [of(0), of(1), of(2)];
}

/** Second derivative by t. */
export function bendOfPiece([a, b, c, d]: PathPiece, t: number): Vector3 {
  const of = (k: number): number => 6 * (1 - t) * (c[k] - 2 * b[k] + a[k]) + 6 * t * (d[k] - 2 * c[k] + b[k]);
  return [of(0), of(1), of(2)];
}

/** Nodes and weights on [0, 1] of Gauss and Legendre's five-point rule. */
const NODES = [0.04691007703066802, 0.23076534494715845, 0.5, 0.7692346550528415, 0.953089922969332];
const WEIGHTS = [
  0.11846344252809454, 0.23931433524968324, 0.28444444444444444, 0.23931433524968324, 0.11846344252809454,
];
/** How far two halves may differ from their whole, as a share of it, before they are halved again. */
const LENGTH_TOLERANCE = 1e-7;
const MAX_HALVINGS = 12;

/** Length of a piece from one t to another, metres; right to about a millionth. */
export function lengthOfPiece(piece: PathPiece, from = 0, to = 1): number {
  return lengthBetween(piece, from, to, quadrature(piece, from, to), 0);
}

function lengthBetween(piece: PathPiece, from: number, to: number, whole: number, depth: number): number {
  const middle = (from + to) / 2;
  const [first, second] = [quadrature(piece, from, middle), quadrature(piece, middle, to)];
  if (depth >= MAX_HALVINGS || Math.abs(first + second - whole) <= LENGTH_TOLERANCE * (first + second) + 1e-12)
    return first + second;
  return lengthBetween(piece, from, middle, first, depth + 1) + lengthBetween(piece, middle, to, second, depth + 1);
}

function quadrature(piece: PathPiece, from: number, to: number): number {
  let sum = 0;
  NODES.forEach((node, i) => {
    sum += WEIGHTS[i] * norm(velocityOfPiece(piece, from + (to - from) * node));
  });
  return sum * (to - from);
}

/** The t at which a piece is so long from its start. @param metres from 0 to its length */
export function parameterAtLength(piece: PathPiece, metres: number, length: number): number {
  let [low, high] = [0, 1];
  let t = length > 0 ? metres / length : 0;
  for (let i = 0; i < 60; i++) {
    const off = lengthOfPiece(piece, 0, t) - metres;
    if (Math.abs(off) <= 1e-9 * Math.max(1, length)) break;
    if (off > 0) high = t;
    else low = t;
    const speed = norm(velocityOfPiece(piece, t));
    const next = speed > 0 ? t - off / speed : NaN;
    t = next > low && next < high ? next : (low + high) / 2;
  }
  return t;
}

/** Points along a path for drawing: straight pieces by their ends, curves in equal steps of t. xyz triples. */
export function pathPoints(path: Pick<Path, 'form' | 'closed' | 'knots'>, stepsPerPiece = 16): Float64Array {
  const pieces = pathPieces(path);
  const steps = path.form === 'polyline' ? 1 : stepsPerPiece;
  if (pieces.length === 0) return Float64Array.from(path.knots[0].position);
  const points = new Float64Array((pieces.length * steps + 1) * 3);
  points.set(pieces[0][0], 0);
  pieces.forEach((piece, i) => {
    for (let step = 1; step <= steps; step++) points.set(pointOfPiece(piece, step / steps), (i * steps + step) * 3);
  });
  return points;
}

export function norm([x, y, z]: Vector3): number {
  return Math.sqrt(x * x + y * y + z * z);
}

function mix(a: Vector3, b: Vector3, share: number): Vector3 {
  return [a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share, a[2] + (b[2] - a[2]) * share];
}

function add(a: Vector3, b: Vector3, share: number): Vector3 {
  return [a[0] + b[0] * share, a[1] + b[1] * share, a[2] + b[2] * share];
}
