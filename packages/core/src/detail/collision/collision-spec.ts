import type { RunContext } from '../../context/run-context';
import type { MeshMaterial, MeshOfPiece } from '../../mesh/kit-meshes';
import type { CollisionShape } from '../../model/kit';
import type { Box3 } from '../../model/vector';

/** Triangles that stop and carry, in the frame of their piece. */
export interface CollisionMesh {
  /** xyz of the vertices, metres. */
  readonly positions: Float32Array;
  /** Three corners a triangle, counter-clockwise seen from outside. */
  readonly indices: Uint32Array;
  /** The same of triangles that are met from behind as well, turned about; they cost nothing more. */
  readonly backs: Uint32Array;
  /** How far the piece's mesh sticks out of it at most, metres; 0 where it does not. */
  readonly outsideMetres: number;
}

/** What a collision is made from. */
export interface CollisionSource {
  readonly bounds: Box3;
  /** The piece at its full step. */
  readonly mesh: MeshOfPiece;
  /** The mesh that was made to be its collision; undefined where it has none. */
  readonly own: MeshOfPiece | undefined;
  readonly materials: readonly MeshMaterial[];
}

/** What is known of a shape of collision without making it. One in each file beside this; `COLLISIONS` lists them. */
export interface CollisionSpec {
  readonly name: string;
  /** What it is, in a sentence. */
  readonly told: string;
  /** Where its triangles stand in the kit's GLB: in a node of their own, in that of the full step, or in none. */
  readonly node: 'own' | 'full' | 'none';
}

/** How a shape of collision is made. Beside its spec; `COLLISION_MAKERS` lists them. */
export interface CollisionMaker {
  /** Undefined where it cannot be made. */
  readonly make: (source: CollisionSource, context: RunContext) => CollisionMesh | undefined;
  /** For whom it cannot be made: 'is flat'. */
  readonly lacking?: string;
  /** What is made then; null is nothing. */
  readonly instead?: CollisionShape | null;
}

export type CollisionSpecs = { readonly [S in CollisionShape]: CollisionSpec };
export type CollisionMakers = { readonly [S in CollisionShape]: CollisionMaker };
