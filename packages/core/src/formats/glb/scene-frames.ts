import type { Document, Node } from '@gltf-transform/core';
import { product, type Matrix } from '../../geometry/matrix';
import type { Vector3 } from '../../model/vector';

/**
 * Where each node stands that a scene shows: its matrix in the scene. All nodes where the file has no scene. Circles are refused before.
 * Once for each node and without recursion: files have chains of many thousand.
 */
export function sceneFrames(document: Document): ReadonlyMap<Node, Matrix> {
  const root = document.getRoot();
  const scenes = root.listScenes();
  const roots =
    scenes.length > 0
      ? scenes.flatMap((scene) => scene.listChildren())
      : root.listNodes().filter((node) => node.getParentNode() === null);
  const frames = new Map<Node, Matrix>();
  const open = roots.map((node): [Node, Matrix | undefined] => [node, undefined]);
  for (let next = open.pop(); next; next = open.pop()) {
    const [node, parent] = next;
    if (frames.has(node)) continue;
    const frame = parent ? product(parent, node.getMatrix()) : node.getMatrix();
    frames.set(node, frame);
    for (const child of node.listChildren()) open.push([child, frame]);
  }
  return frames;
}

/** Where a node stands in the scene; its origin where there is none. */
export function placeOf(node: Node | null, frames: ReadonlyMap<Node, Matrix>): Vector3 {
  const frame = node && frames.get(node);
  return frame ? [frame[12], frame[13], frame[14]] : [0, 0, 0];
}
