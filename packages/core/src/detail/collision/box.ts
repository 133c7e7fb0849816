import type { CollisionMaker, CollisionSpec } from './collision-spec';

/** Corners by number, bit 0 for x, 1 for y, 2 for z; two triangles a side, counter-clockwise from outside. */
const TRIANGLES = [
  ...[0, 4, 6, 0, 6, 2],
  ...[1, 3, 7, 1, 7, 5],
  ...[0, 1, 5, 0, 5, 4],
  ...[2, 6, 7, 2, 7, 3],
  ...[0, 2, 3, 0, 3, 1],
  ...[4, 5, 7, 4, 7, 6],
];

export const BOX: CollisionSpec = {
  name: 'Box',
  told: 'Its bounds.',
  node: 'none',
};

export const BOX_MAKER: CollisionMaker = {
  make: ({ bounds: { min, max } }) => {
    const positions = new Float32Array(24);
    for (let corner = 0; corner < 8; corner++)
      for (let k = 0; k < 3; k++) positions[corner * 3 + k] = (corner & (1 << k) ? max : min)[k];
    return { positions, indices: Uint32Array.from(TRIANGLES), backs: new Uint32Array(0), outsideMetres: 0 };
  },
};
