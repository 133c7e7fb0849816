import type { Box3, Vector3 } from '../model/vector';

/** What two meshes of the same piece may differ by without having moved, metres and shares of their length. */
const STILL_METRES = 0.001;
const STILL_SHARE = 0.001;

/**
 * How far a piece lies beside where it lay, by its bounds about its origin, metres; undefined where it lies as before.
 * Along an axis it has moved when both its ends have moved the same way, and then by the lesser of both: what only grows
 * at one end, or at both, has not moved.
 */
export function movedOrigin(before: Box3, after: Box3): Vector3 | undefined {
  const moved = [0, 1, 2].map((axis) => {
    const least = after.min[axis] - before.min[axis];
    const greatest = after.max[axis] - before.max[axis];
    const length = Math.min(before.max[axis] - before.min[axis], after.max[axis] - after.min[axis]);
    if (Math.sign(least) !== Math.sign(greatest)) return 0;
    const both = Math.sign(least) * Math.min(Math.abs(least), Math.abs(greatest));
    return Math.abs(both) > Math.max(STILL_METRES, STILL_SHARE * length) ? both : 0;
  });
  return moved.some((metres) => metres !== 0) ? [moved[0], moved[1], moved[2]] : undefined;
}

/** Bounds of a mesh that was moved by some metres, its coordinates rounded as meshes hold them. */
export function movedBox({ min, max }: Box3, [x, y, z]: Vector3): Box3 {
  const moved = (corner: Vector3): Vector3 => [
    Math.fround(corner[0] + x),
    Math.fround(corner[1] + y),
    Math.fround(corner[2] + z),
  ];
  return { min: moved(min), max: moved(max) };
}

/** How far something has moved, in words: '0.5, 0, 0 m'. */
export function movedText(moved: Vector3): string {
  return `${moved.map((metres) => Number(metres.toFixed(3))).join(', ')} m`;
}
