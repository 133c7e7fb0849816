import type { Box3, Vector3 } from './vector';

/** The unique pieces that a set and its children draw from; its meshes stand in one GLB. */
export interface Kit {
  readonly id: string;
  readonly name: string;
  /** Readable and unique in the collection; files use it, and it stays when the kit is renamed. */
  readonly key: string;
  /** SHA-256 of its GLB, hexadecimal; names the asset. */
  readonly mesh: string;
}

/** Materials of a piece at most. */
export const MAX_PIECE_MATERIALS = 1000;

/** What one step of a piece costs. */
export interface PieceStep {
  readonly triangles: number;
  readonly vertices: number;
  readonly materials: number;
  /** Vertices, indices and textures with mips, as held in memory. */
  readonly bytes: number;
  /** Measured distance from the full step, metres; absent at step 0. */
  readonly deviationMetres?: number;
}

/** One reusable thing of a kit. */
export interface Piece {
  readonly id: string;
  readonly kit: string;
  /** Name of its node in the kit's GLB; those of coarser steps are told by `stepNodeName`. */
  readonly name: string;
  readonly bounds: Box3;
  /** Full first. */
  readonly steps: readonly PieceStep[];
  /** How far it lies beside where it lay about its origin before it was replaced, metres; absent where it does not. */
  readonly movedOrigin?: Vector3 | null;
}

/** How the name of a coarser step's node ends. */
export const STEP_NAME = /\.step\d+$/;

/** Name of the node that holds a step of a piece. */
export function stepNodeName(piece: string, step: number): string {
  return step === 0 ? piece : `${piece}.step${step}`;
}
