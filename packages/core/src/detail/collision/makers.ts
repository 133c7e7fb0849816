import { BOX_MAKER } from './box';
import type { CollisionMakers } from './collision-spec';
import { HULL_MAKER } from './hull';
import { MESH_MAKER } from './mesh';
import { OWN_MAKER } from './own';

/** How every shape of collision is made: a line here and one in `COLLISIONS`, which the page has without all of this. */
export const COLLISION_MAKERS: CollisionMakers = {
  box: BOX_MAKER,
  hull: HULL_MAKER,
  own: OWN_MAKER,
  mesh: MESH_MAKER,
};
