import type { Fields } from './fields';
import type { PackFiles } from './pack-files';

/** A level of detail of a piece. */
export interface PieceStep {
  /** Node of the GLB that has its triangles. */
  readonly node: string;
  readonly fromMetres: number;
  readonly triangles: number;
}

export interface Collision {
  readonly shape: string;
  /** Node of the GLB that has its triangles; null for the box of the piece's bounds. */
  readonly node: string | null;
}

/** A piece of a kit. */
export class Piece {
  private readonly distances: Float64Array;

  constructor(
    readonly id: string,
    readonly name: string,
    /** Path of the GLB that has its meshes. */
    readonly meshes: string,
    /** Least and greatest x, y, z in the piece's own frame, metres. */
    readonly bounds: { readonly min: readonly number[]; readonly max: readonly number[] },
    /** The full one first. */
    readonly steps: readonly PieceStep[],
    /** Undefined for a piece that stops and carries nothing. */
    readonly collision: Collision | undefined,
  ) {
    this.distances = Float64Array.from(steps, ({ fromMetres }) => fromMetres);
  }

  /**
   * Number of the step to draw.
   * @param distance from the eye to the nearest point of the placement's bounds, metres
   * @param scale greatest of |x|, |y|, |z| of the placement's scale
   */
  lodAt(distance: number, scale: number): number {
    let step = 0;
    for (let k = 1; k < this.distances.length; k++) if (distance >= this.distances[k] * scale) step = k;
    return step;
  }
}

/** Reads the pieces of a kit. @param path of the kit's file @throws PackError */
export async function readKit(files: PackFiles, path: string): Promise<Piece[]> {
  return (await files.json(path, 'stravel-pack-kit')).tables('pieces').map(pieceOf);
}

function pieceOf(piece: Fields): Piece {
  const bounds = piece.table('bounds');
  return new Piece(
    piece.text('id'),
    piece.text('name'),
    piece.text('meshes'),
    { min: bounds.numbers('min', 3), max: bounds.numbers('max', 3) },
    piece.tables('steps').map((step) => ({
      node: step.text('node'),
      fromMetres: step.number('fromMetres'),
      triangles: step.number('triangles'),
    })),
    piece.has('collision')
      ? { shape: piece.table('collision').text('shape'), node: piece.table('collision').textOrNull('node') }
      : undefined,
  );
}
