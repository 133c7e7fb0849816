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

/** How what stops and carries bodies in a piece's place is made, simplest first. */
export const COLLISION_SHAPES = ['box', 'hull', 'own', 'mesh'] as const;
export type CollisionShape = (typeof COLLISION_SHAPES)[number];

/** What stops and carries bodies in a piece's place, and what it costs. */
export interface PieceCollision {
  readonly shape: CollisionShape;
  readonly triangles: number;
  readonly vertices: number;
  /** Positions and indices, as held in memory. */
  readonly bytes: number;
  /** How far the mesh sticks out of it at most, metres; absent where it does not. */
  readonly outsideMetres?: number | null;
  /** SHA-256 of its triangles, hexadecimal: what rests on it knows by this that it changed. */
  readonly digest: string;
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
  /** Absent or null: nothing is stopped or carried by it. */
  readonly collision?: PieceCollision | null;
}

/** How the name of a coarser step's node ends. */
export const STEP_NAME = /\.step\d+$/;

/** Name of the node that holds a step of a piece. */
export function stepNodeName(piece: string, step: number): string {
  return step === 0 ? piece : `${piece}.step${step}`;
}

/** How the name of a collision's node ends. */
const COLLISION_NAME = /\.collision$/;

/** Name of the node that holds a piece's collision, where that is a mesh of its own. */
export function collisionNodeName(piece: string): string {
  return `${piece}.collision`;
}

/** Whether a node holds a collision. */
export function isCollisionNode(name: string): boolean {
  return COLLISION_NAME.test(name);
}

/** Name of the piece that a node of a kit's GLB is of: its mesh, an LOD or its collision. */
export function pieceOfNode(name: string): string {
  return name.replace(STEP_NAME, '').replace(COLLISION_NAME, '');
}
