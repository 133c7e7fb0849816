import { convexHull } from '../../geometry/convex-hull';
import { TriangleGrid } from '../../mesh/triangle-grid';
import type { CollisionMaker, CollisionSpec } from './collision-spec';
import { weldedSurface } from './welded-surface';

/** Most corners of a hull: what games' own collision takes as one solid, and enough for a ball. */
export const MAX_HULL_CORNERS = 64;
const CHECK_POINTS = 4096;

export const HULL: CollisionSpec = {
  name: 'Hull',
  told: `A convex solid about it with at most ${MAX_HULL_CORNERS} corners.`,
  node: 'own',
};

export const HULL_MAKER: CollisionMaker = {
  make: ({ mesh }, context) => {
    // Vertices that no triangle uses are not part of it.
    const { positions } = weldedSurface(mesh.parts);
    const hull = convexHull(positions, MAX_HULL_CORNERS);
    if (!hull) return undefined;
    // The farthest point of a mesh from a convex solid is a vertex.
    let squared = 0;
    if (hull.outside.length > 0) {
      const grid = new TriangleGrid(hull.positions, hull.indices);
      hull.outside.forEach((point, i) => {
        if (i % CHECK_POINTS === 0) context.checkCancelled();
        const [x, y, z] = positions.subarray(point * 3, point * 3 + 3);
        squared = Math.max(squared, grid.nearestSquared(x, y, z));
      });
    }
    return { ...hull, backs: new Uint32Array(0), outsideMetres: Math.sqrt(squared) };
  },
  lacking: 'is flat',
  instead: 'mesh',
};
