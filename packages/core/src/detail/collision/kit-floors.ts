import { readGlb } from '../../formats/glb/read-glb';
import { collisionNodeName, type Piece } from '../../model/kit';
import type { RunContext } from '../../context/run-context';
import { COLLISIONS } from '.';
import { COLLISION_MAKERS } from './makers';
import type { CollisionMesh } from './collision-spec';
import { OWN_MAKER } from './own';

/** What carries in the place of pieces, by id of the piece. */
export type Floors = Readonly<Record<string, CollisionMesh>>;

export interface KitFloorsInput {
  readonly glb: Uint8Array;
  /** Pieces of that kit; those without a collision are passed over. */
  readonly pieces: readonly Piece[];
}

/** The collisions of pieces as triangles. @throws CoreError 'GLB_UNREADABLE', 'CANCELLED' */
export async function kitFloors({ glb, pieces }: KitFloorsInput, context: RunContext): Promise<Floors> {
  const { meshes } = await readGlb(glb);
  const byName = new Map(meshes.pieces.map((piece) => [piece.name, piece]));
  const floors: [string, CollisionMesh][] = [];
  for (const { id, name, bounds, collision } of pieces) {
    context.checkCancelled();
    const [mesh, node] = [byName.get(name), byName.get(collisionNodeName(name))];
    if (!collision || !mesh) continue;
    // What stands in a node of its own is read back from there, however it was made.
    const { make } = COLLISIONS[collision.shape].node === 'own' ? OWN_MAKER : COLLISION_MAKERS[collision.shape];
    const made = make({ bounds, mesh, own: node, materials: meshes.materials }, context);
    if (made) floors.push([id, made]);
  }
  return Object.fromEntries(floors);
}
