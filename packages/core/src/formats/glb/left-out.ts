import type { Document, Node } from '@gltf-transform/core';
import { KHRLightsPunctual } from '@gltf-transform/extensions';
import { counted } from '../../counted';
import { isReadExtension } from './glb-io';

/** Where programs note what morph targets are called: those are told by themselves. */
const TARGET_NAMES = 'targetNames';

/**
 * What of a file comes in nowhere, a sentence each: nothing is left out in silence.
 * @param frames of the nodes that a scene shows
 */
export function leftOut(document: Document, used: readonly string[], frames: ReadonlyMap<Node, unknown>): string[] {
  const root = document.getRoot();
  const nodes = root.listNodes();
  const empties = nodes.filter(
    (node) =>
      !node.getMesh() && !node.getCamera() && node.listChildren().length === 0 && node.listExtensions().length === 0,
  );
  const joints = new Set(root.listSkins().flatMap((skin) => skin.listJoints()));
  const extras = [...nodes, ...root.listMeshes(), ...root.listMaterials(), ...root.listScenes()].filter((one) =>
    Object.keys(one.getExtras()).some((key) => key !== TARGET_NAMES),
  );
  const lights = nodes.filter((node) => node.getExtension(KHRLightsPunctual.EXTENSION_NAME));
  const lines: [words: string, count: number][] = [];
  const told = (count: number, one: string, many: string, why = ''): void =>
    void lines.push([`${counted(count, one, many)} ${count === 1 ? 'is' : 'are'} left out${why}`, count]);
  told(root.listSkins().length, 'skin', 'skins', ': pieces come in as they stand at rest');
  told(root.listAnimations().length, 'animation', 'animations');
  told(root.listCameras().length, 'camera', 'cameras');
  told(lights.length, 'light', 'lights');
  told(empties.filter((node) => !joints.has(node)).length, 'empty node', 'empty nodes');
  told(
    nodes.filter((node) => node.getMesh() && !frames.has(node)).length,
    'node with a mesh',
    'nodes with meshes',
    ': in no scene',
  );
  told(extras.length, 'table of extras', 'tables of extras');
  for (const name of used) if (!isReadExtension(name)) lines.push([`the extension ${name} is left out`, 1]);
  return lines.flatMap(([words, count]) => (count > 0 ? [words] : []));
}
