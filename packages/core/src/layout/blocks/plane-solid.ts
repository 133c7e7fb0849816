import { CoreError } from '../../errors';
import { addBlockPlanes } from '../../geometry/block-solid';
import { PlaneTable } from '../../geometry/plane-table';
import { faceCorners, polyhedronFromPlanes } from '../../geometry/polyhedron';
import type { BlockPlane } from '../../model/block';

/** One face of a solid given by planes. */
export interface PlaneFace {
  /** Index of its plane. */
  readonly plane: number;
  /** Corners counter-clockwise from outside, xyz triples in metres, in the planes' own frame. */
  readonly corners: Float64Array;
}

/** A closed convex solid in the frame of its planes. */
export interface PlaneSolid {
  readonly faces: readonly PlaneFace[];
  readonly cubicMetres: number;
}

/** The solid that planes enclose, undefined when they enclose nothing. @throws CoreError 'BLOCK_UNBOUNDED' when they do not close */
export function planeSolid(planes: readonly BlockPlane[]): PlaneSolid | undefined {
  const table = new PlaneTable();
  const refs = addBlockPlanes(table, { position: [0, 0, 0], turn: [0, 0, 0], planes });
  const built = polyhedronFromPlanes(table, refs);
  if (!built) return undefined;
  if (!built.bounded) throw new CoreError('BLOCK_UNBOUNDED', `block: its ${planes.length} planes do not close`);
  const faces = built.solid.faces.map((face) => ({
    plane: refs.indexOf(face.support),
    corners: faceCorners(table, face),
  }));
  return { faces, cubicMetres: volumeOf(faces) };
}

/** Planes that carry no face are left out; the order of the others stays. */
export function neededPlanes(planes: readonly BlockPlane[], { faces }: PlaneSolid): number[] {
  const used = new Set(faces.map(({ plane }) => plane));
  return planes.flatMap((_plane, i) => (used.has(i) ? [i] : []));
}

function volumeOf(faces: readonly PlaneFace[]): number {
  const origin = faces[0].corners;
  let sixfold = 0;
  for (const { corners: c } of faces) {
    const at = (i: number, k: number): number => c[i * 3 + k] - origin[k];
    for (let i = 1; i + 1 < c.length / 3; i++) {
      sixfold +=
        at(0, 0) * (at(i, 1) * at(i + 1, 2) - at(i, 2) * at(i + 1, 1)) +
        at(0, 1) * (at(i, 2) * at(i + 1, 0) - at(i, 0) * at(i + 1, 2)) +
        at(0, 2) * (at(i, 0) * at(i + 1, 1) - at(i, 1) * at(i + 1, 0));
    }
  }
  return sixfold / 6;
}
