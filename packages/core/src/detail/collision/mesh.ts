import { weldedSurface } from './welded-surface';
import type { CollisionMaker, CollisionSpec } from './collision-spec';

export const MESH: CollisionSpec = {
  name: 'Mesh',
  told: 'Its triangles as they are drawn in full.',
  node: 'full',
};

export const MESH_MAKER: CollisionMaker = {
  make: ({ mesh, materials }) => {
    const { positions, indices, starts } = weldedSurface(mesh.parts);
    const backs: number[] = [];
    mesh.parts.forEach(({ material }, part) => {
      if (material === null || !materials[material].doubleSided) return;
      for (let i = starts[part]; i < starts[part + 1]; i += 3) backs.push(indices[i], indices[i + 2], indices[i + 1]);
    });
    return { positions, indices, backs: Uint32Array.from(backs), outsideMetres: 0 };
  },
};
