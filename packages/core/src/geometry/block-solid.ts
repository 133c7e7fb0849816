import { CoreError } from '../errors';
import type { Block, BlockPlane } from '../model/block';
import type { Box3, PlanPoint, TurnDegrees, Vector3 } from '../model/vector';
import { PlaneTable, type PlaneRef } from './plane-table';
import { faceCorners, polyhedronFromPlanes, type Polyhedron } from './polyhedron';
import { turnMatrix, turnVector } from './turn';

/** What a block's planes are made of. */
type BlockShape = Pick<Block, 'position' | 'turn' | 'planes'>;

/** Adds a block's planes to a table, in the level's frame. Welds them with what the table holds already. */
export function addBlockPlanes(table: PlaneTable, block: BlockShape): PlaneRef[] {
  const m = turnMatrix(block.turn);
  const local = localFacePoints(block.planes);
  return block.planes.map((plane, i) => {
    const n = turnVector(m, plane[0], plane[1], plane[2]);
    const p = turnVector(m, local[i][0], local[i][1], local[i][2]);
    return table.add(n[0], n[1], n[2], p[0] + block.position[0], p[1] + block.position[1], p[2] + block.position[2]);
  });
}

/**
 * The solid of a block in the level's frame.
 * @param planes those of the block in the table, when they are there already
 * @throws CoreError 'BLOCK_EMPTY' when its planes enclose nothing, 'BLOCK_UNBOUNDED' when they do not close
 */
export function blockSolid(
  table: PlaneTable,
  block: BlockShape & { readonly id: string },
  planes = addBlockPlanes(table, block),
): Polyhedron {
  const built = polyhedronFromPlanes(table, planes);
  if (!built) {
    throw new CoreError('BLOCK_EMPTY', `block ${block.id}: its ${block.planes.length} planes enclose nothing`, {
      block: block.id,
    });
  }
  if (!built.bounded) {
    throw new CoreError('BLOCK_UNBOUNDED', `block ${block.id}: its ${block.planes.length} planes do not close`, {
      block: block.id,
    });
  }
  return built.solid;
}

/** A block's surface for drawing and counting. */
export interface BlockSurface {
  /** Corners of each face, counter-clockwise from outside; xyz triples in metres, the level's frame. */
  readonly faces: readonly Float64Array[];
  /** For each face the number of its plane in the block; the first where several are one. */
  readonly planes: readonly number[];
  readonly bounds: Box3;
  /** Triangles of all faces as fans. */
  readonly triangles: number;
}

/** @throws CoreError as `blockSolid` */
export function blockSurface(block: BlockShape & { readonly id: string }): BlockSurface {
  const table = new PlaneTable();
  const refs = addBlockPlanes(table, block);
  const solid = blockSolid(table, block, refs);
  const faces = solid.faces.map((face) => faceCorners(table, face));
  const b = solid.bounds;
  return {
    faces,
    planes: solid.faces.map((face) => refs.indexOf(face.support)),
    bounds: { min: [b[0], b[1], b[2]], max: [b[3], b[4], b[5]] },
    triangles: faces.reduce((sum, face) => sum + face.length / 3 - 2, 0),
  };
}

/** The same, undefined for a block that encloses nothing or does not close: the sight bake tells of it. */
export function blockSurfaceIfAny(block: BlockShape & { readonly id: string }): BlockSurface | undefined {
  try {
    return blockSurface(block);
  } catch (error) {
    if (error instanceof CoreError) return undefined;
    throw error;
  }
}

/** Planes of a box that stands on its own frame's origin: centred in x and z, from 0 up in y. Metres, each above 0. */
export function boxPlanes(size: Vector3): BlockPlane[] {
  return [
    [1, 0, 0, size[0] / 2],
    [-1, 0, 0, size[0] / 2],
    [0, 1, 0, size[1]],
    [0, -1, 0, 0],
    [0, 0, 1, size[2] / 2],
    [0, 0, -1, size[2] / 2],
  ];
}

/** Planes of a wedge: a box whose top slopes from full height at −Z down to nothing at +Z. */
export function wedgePlanes(size: Vector3): BlockPlane[] {
  const [x, y, z] = size;
  return [
    [1, 0, 0, x / 2],
    [-1, 0, 0, x / 2],
    [0, -1, 0, 0],
    [0, 0, -1, z / 2],
    [0, z, y, (y * z) / 2],
  ];
}

/**
 * Planes of an upright prism over a convex outline.
 * @param outline at least three points of the plan in cyclic order, either way round, metres, in the block's frame
 * @throws CoreError 'OUTLINE_NOT_CONVEX' or 'OUTLINE_TOO_SHORT', naming the corner
 */
export function prismPlanes(outline: readonly PlanPoint[], height: number): BlockPlane[] {
  if (outline.length < 3) {
    throw new CoreError('OUTLINE_TOO_SHORT', `prism: the outline needs at least 3 corners, has ${outline.length}`);
  }
  const n = outline.length;
  let area = 0;
  for (let i = 0; i < n; i++) {
    const [ax, az] = outline[i];
    const [bx, bz] = outline[(i + 1) % n];
    area += ax * bz - bx * az;
  }
  const way = area > 0 ? 1 : -1;
  const planes: BlockPlane[] = [
    [0, 1, 0, height],
    [0, -1, 0, 0],
  ];
  for (let i = 0; i < n; i++) {
    const [ax, az] = outline[i];
    const [bx, bz] = outline[(i + 1) % n];
    const [cx, cz] = outline[(i + 2) % n];
    const turnAtCorner = (bx - ax) * (cz - bz) - (bz - az) * (cx - bx);
    if (!(turnAtCorner * way > 0)) {
      throw new CoreError(
        'OUTLINE_NOT_CONVEX',
        `prism: the outline must turn one way, corner ${((i + 1) % n) + 1} at (${bx}, ${bz}) does not`,
      );
    }
    const nx = (bz - az) * way;
    const nz = -(bx - ax) * way;
    planes.push([nx, 0, nz, nx * ax + nz * az]);
  }
  return planes;
}

/**
 * Stretches planes about their frame's origin.
 * @param factors along x, y and z, each above 0
 */
export function stretchPlanes(planes: readonly BlockPlane[], factors: Vector3): BlockPlane[] {
  return planes.map(([nx, ny, nz, d]) => [nx / factors[0] + 0, ny / factors[1] + 0, nz / factors[2] + 0, d]);
}

const UNTURNED: TurnDegrees = [0, 0, 0];

/** Bounds of planes in their own frame. @throws CoreError as `blockSolid` */
export function localBounds(planes: readonly BlockPlane[]): Box3 {
  return blockSurface({ id: 'planes', position: [0, 0, 0], turn: UNTURNED, planes }).bounds;
}

/** For each plane its point nearest to its frame's origin: there the quantised plane is made to fit. */
function localFacePoints(planes: readonly BlockPlane[]): Vector3[] {
  return planes.map(([nx, ny, nz, d]) => {
    const square = nx * nx + ny * ny + nz * nz;
    const t = square > 0 ? d / square : NaN;
    return [nx * t, ny * t, nz * t];
  });
}
