import { collisionNodeName, type CollisionShape } from '../../model/kit';
import { BOX } from './box';
import type { CollisionSpecs } from './collision-spec';
import { HULL } from './hull';
import { MESH } from './mesh';
import { OWN } from './own';

/** Every shape of collision: a new one is a file and a line here. */
export const COLLISIONS: CollisionSpecs = { box: BOX, hull: HULL, own: OWN, mesh: MESH };

/** The node of a kit's GLB in which a collision of a piece stands; null where its bounds say all. */
export function collisionNode(piece: string, shape: CollisionShape): string | null {
  const { node } = COLLISIONS[shape];
  return node === 'own' ? collisionNodeName(piece) : node === 'full' ? piece : null;
}
