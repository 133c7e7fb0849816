import { CoreError } from '../../errors';
import { prismPlanes } from '../../geometry/block-solid';
import { turnMatrix, turnVector, type TurnMatrix } from '../../geometry/turn';
import type { Block, BlockFace, BlockPlane } from '../../model/block';
import type { PlanPoint, Vector3 } from '../../model/vector';
import { cosDegrees, sinDegrees } from '../../numeric/trigonometry';
import { neededPlanes, planeSolid, type PlaneSolid } from './plane-solid';

/** The shape of a block, and what goes with its planes. */
export type BlockShape = Pick<Block, 'position' | 'turn' | 'planes' | 'faces'>;
/** What an edit changes of a block. */
export type ShapedBlock = Pick<Block, 'planes' | 'faces'>;

export const MIN_SIDES = 3;
export const MAX_SIDES = 64;
/** Solids of less than this are nothing, cubic metres. */
const MIN_CUBIC_METRES = 1e-9;
/** How far the volume of two blocks may fall short of the solid around both before they are not convex together. */
const JOIN_TOLERANCE = 1e-6;

/**
 * Planes of an upright cylinder with flat sides on its frame's origin.
 * @param size metres, across x, up, across z @param sides from 3 to 64
 * @throws CoreError 'CYLINDER_SIDES'
 */
export function cylinderPlanes(size: Vector3, sides: number): BlockPlane[] {
  if (!Number.isInteger(sides) || sides < MIN_SIDES || sides > MAX_SIDES) {
    throw new CoreError('CYLINDER_SIDES', `cylinder: must have from ${MIN_SIDES} to ${MAX_SIDES} sides, has ${sides}`);
  }
  const outline = Array.from({ length: sides }, (_unused, i): PlanPoint => {
    const degrees = (360 * (i + 0.5)) / sides;
    return [(cosDegrees(degrees) * size[0]) / 2, (sinDegrees(degrees) * size[2]) / 2];
  });
  return prismPlanes(outline, size[1]);
}

/** Holds planes to what a block must be. @throws CoreError 'BLOCK_EMPTY', 'BLOCK_UNBOUNDED' */
export function checkedPlanes(planes: readonly BlockPlane[]): PlaneSolid {
  const solid = planeSolid(planes);
  if (!solid || solid.cubicMetres < MIN_CUBIC_METRES)
    throw new CoreError('BLOCK_EMPTY', `block: its ${planes.length} planes enclose nothing`);
  return solid;
}

/**
 * Cuts a block by a plane of the level. Inside is n·p ≤ offset: the back; the front is beyond.
 * @throws CoreError 'CUT_MISSES' when all of the block lies on one side, so that one part would be nothing
 */
export function cutBlock(
  block: BlockShape,
  [nx, ny, nz, offset]: BlockPlane,
): { readonly back: ShapedBlock; readonly front: ShapedBlock } {
  const m = turnMatrix(block.turn);
  const local = turnBack(m, nx, ny, nz);
  const plane: BlockPlane = [
    ...local,
    offset - (nx * block.position[0] + ny * block.position[1] + nz * block.position[2]),
  ];
  const part = (cut: BlockPlane): ShapedBlock => {
    const planes = [...block.planes, cut];
    const solid = planeSolid(planes);
    if (!solid || solid.cubicMetres < MIN_CUBIC_METRES) {
      throw new CoreError(
        'CUT_MISSES',
        'cut: all of the block lies on one side of the plane; put the plane through it',
      );
    }
    return kept(planes, block.faces, solid);
  };
  return { back: part(plane), front: part([-plane[0] + 0, -plane[1] + 0, -plane[2] + 0, -plane[3] + 0]) };
}

/**
 * One block of two, in the frame of the first.
 * @throws CoreError 'JOIN_NOT_CONVEX' when the two together are not convex
 */
export function joinBlocks(first: BlockShape, second: BlockShape): ShapedBlock {
  const moved = inFrameOf(first, second);
  const [a, b] = [checkedPlanes(first.planes), checkedPlanes(moved)];
  const holds = (plane: BlockPlane, other: PlaneSolid): boolean => {
    const [x, y, z, d] = plane;
    const length = Math.sqrt(x * x + y * y + z * z);
    return other.faces.every(({ corners }) => {
      for (let i = 0; i < corners.length; i += 3)
        if (x * corners[i] + y * corners[i + 1] + z * corners[i + 2] - d > 1e-5 * length) return false;
      return true;
    });
  };
  const refuse = (share: number): never => {
    throw new CoreError(
      'JOIN_NOT_CONVEX',
      `join: the two blocks together are not convex: the solid around both is ${(share * 100).toFixed(2)} % larger than they are`,
    );
  };
  const from = [...first.planes.filter((plane) => holds(plane, b)), ...moved.filter((plane) => holds(plane, a))];
  let around: PlaneSolid | undefined;
  try {
    around = from.length >= 4 ? planeSolid(from) : undefined;
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
  }
  if (!around)
    throw new CoreError(
      'JOIN_NOT_CONVEX',
      'join: the two blocks together are not convex: their outer planes do not close',
    );
  const both = a.cubicMetres + b.cubicMetres - commonSolid(first, second);
  if (around.cubicMetres - both > JOIN_TOLERANCE * both) refuse(around.cubicMetres / both - 1);
  const names = first.planes.flatMap((plane, i) => (from.includes(plane) ? [i] : []));
  const faces = first.faces
    ?.filter(({ plane }) => names.includes(plane))
    .map((face) => ({ ...face, plane: names.indexOf(face.plane) }));
  return kept(from, faces, around);
}

/**
 * Walls of a block: one under each of its faces, together all of it but a hollow.
 * @param wallMetres thickness, above 0
 * @throws CoreError 'HOLLOW_TOO_THICK' when nothing would be left hollow
 */
export function hollowBlock(block: BlockShape, wallMetres: number): ShapedBlock[] {
  const solid = checkedPlanes(block.planes);
  const inner = ([nx, ny, nz, d]: BlockPlane): BlockPlane => [
    nx,
    ny,
    nz,
    d - wallMetres * Math.sqrt(nx * nx + ny * ny + nz * nz),
  ];
  const needed = neededPlanes(block.planes, solid);
  const hollow = planeSolid(needed.map((i) => inner(block.planes[i])));
  if (!(wallMetres > 0) || !hollow || hollow.cubicMetres < MIN_CUBIC_METRES) {
    throw new CoreError(
      'HOLLOW_TOO_THICK',
      `walls: a thickness of ${wallMetres} m leaves no space inside; the block is ${thinnestText(solid)} m thick`,
    );
  }
  return needed.flatMap((at, n) => {
    const [ix, iy, iz, id] = inner(block.planes[at]);
    // Behind the walls that came before, so that no two walls overlap.
    const planes = [
      ...block.planes,
      ...needed.slice(0, n).map((earlier) => inner(block.planes[earlier])),
      [-ix + 0, -iy + 0, -iz + 0, -id + 0] as BlockPlane,
    ];
    const wall = planeSolid(planes);
    return wall && wall.cubicMetres >= MIN_CUBIC_METRES ? [kept(planes, block.faces, wall)] : [];
  });
}

/**
 * Moves one face outwards along its normal, inwards below 0.
 * @throws CoreError 'BLOCK_EMPTY' when nothing would be left, 'FACE_GONE' when the face would no longer be one
 */
export function moveFace(block: BlockShape, face: number, metres: number): ShapedBlock {
  const [nx, ny, nz, d] = block.planes[face];
  const planes = block.planes.map((plane, i): BlockPlane =>
    i === face ? [nx, ny, nz, d + metres * Math.sqrt(nx * nx + ny * ny + nz * nz)] : plane,
  );
  const solid = checkedPlanes(planes);
  if (!solid.faces.some(({ plane }) => plane === face))
    throw new CoreError(
      'FACE_GONE',
      `move face: ${metres} m further out the face ${face + 1} is cut off by its neighbours`,
    );
  return { planes, faces: block.faces };
}

/** Space that two blocks both fill, cubic metres. */
export function commonSolid(first: BlockShape, second: BlockShape): number {
  return planeSolid([...first.planes, ...inFrameOf(first, second)])?.cubicMetres ?? 0;
}

/** Planes of another block in the frame of the first. */
function inFrameOf(first: BlockShape, other: BlockShape): BlockPlane[] {
  const [mine, its] = [turnMatrix(first.turn), turnMatrix(other.turn)];
  const off = turnBack(
    mine,
    other.position[0] - first.position[0],
    other.position[1] - first.position[1],
    other.position[2] - first.position[2],
  );
  return other.planes.map(([nx, ny, nz, d]): BlockPlane => {
    const n = turnBack(mine, ...turnVector(its, nx, ny, nz));
    return [...n, d + n[0] * off[0] + n[1] * off[1] + n[2] * off[2]];
  });
}

/** Mᵀ · v: from the level's frame back to the thing's own. */
function turnBack(m: TurnMatrix, x: number, y: number, z: number): [number, number, number] {
  return [m[0] * x + m[3] * y + m[6] * z + 0, m[1] * x + m[4] * y + m[7] * z + 0, m[2] * x + m[5] * y + m[8] * z + 0];
}

/** Only planes that carry a face, with the surfaces of those that had one. */
function kept(
  planes: readonly BlockPlane[],
  faces: readonly BlockFace[] | null | undefined,
  solid: PlaneSolid,
): ShapedBlock {
  const needed = neededPlanes(planes, solid);
  const own = (faces ?? [])
    .filter(({ plane }) => needed.includes(plane))
    .map((face) => ({ ...face, plane: needed.indexOf(face.plane) }));
  return { planes: needed.map((i) => planes[i]), ...(own.length > 0 ? { faces: own } : {}) };
}

function thinnestText({ faces }: PlaneSolid): string {
  const low = [Infinity, Infinity, Infinity];
  const high = [-Infinity, -Infinity, -Infinity];
  for (const { corners } of faces) {
    corners.forEach((value, i) => {
      low[i % 3] = Math.min(low[i % 3], value);
      high[i % 3] = Math.max(high[i % 3], value);
    });
  }
  return Math.min(...high.map((value, k) => value - low[k])).toFixed(2);
}
