import { weldedSurface } from './welded-surface';
import type { CollisionMaker, CollisionSpec } from './collision-spec';

export const OWN: CollisionSpec = {
  name: 'Own mesh',
  told: 'A mesh that was imported for it.',
  node: 'own',
};

export const OWN_MAKER: CollisionMaker = {
  make: ({ own }) => own && { ...weldedSurface(own.parts), backs: new Uint32Array(0), outsideMetres: 0 },
  lacking: 'has no mesh of its own for it',
  instead: null,
};
