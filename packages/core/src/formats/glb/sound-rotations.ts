import type { Document } from '@gltf-transform/core';

/** A rotation may be so far off length 1, as exporters round it. */
const SOUND = 1e-3;

/**
 * Gives rotations length 1, as only such turn without scaling; one of length 0 is taken as none.
 * @param told is told each node that was put right
 */
export function soundRotations(document: Document, told: (node: string, message: string) => void): void {
  for (const [i, node] of document.getRoot().listNodes().entries()) {
    const rotation = node.getRotation();
    const length = Math.sqrt(rotation.reduce((sum, one) => sum + one * one, 0));
    if (!Number.isFinite(length) || Math.abs(length - 1) <= SOUND) continue;
    const name = node.getName() || `node ${i + 1}`;
    if (length === 0) {
      node.setRotation([0, 0, 0, 1]);
      told(name, 'its rotation has length 0 and is read as none');
    } else {
      const [x, y, z, w] = rotation;
      node.setRotation([x / length, y / length, z / length, w / length]);
      told(name, `its rotation has length ${Number(length.toPrecision(3))} and is read as of length 1`);
    }
  }
}
