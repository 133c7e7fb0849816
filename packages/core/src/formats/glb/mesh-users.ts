import type { Document, Mesh, Node } from '@gltf-transform/core';
import { counted } from '../../counted';
import type { Matrix } from '../../geometry/matrix';
import { placeOf } from './scene-frames';

/** The names that a mesh may have whose collision a node of a name is, likeliest first; none where it is not named so. */
export type OwnersOf = (name: string) => readonly string[];

/** Distances that are compared at most to find by which use of a mesh its collisions stand. */
const MAX_COMPARED = 5e7;

/**
 * Meshes in order of the nodes that show them; where no node shows any, all of them. Then collisions, each by itself: those that stand by
 * the first use of the mesh that they are of. The others are those of further uses, and are told.
 */
export function meshUsers(
  document: Document,
  frames: ReadonlyMap<Node, Matrix>,
  ownersOf: OwnersOf,
  note: (where: string, message: string) => void,
): (readonly [Mesh, Node[]])[] {
  const root = document.getRoot();
  const shown = root.listNodes().flatMap((node) => {
    const mesh = node.getMesh();
    return mesh && frames.has(node) ? [{ node, mesh }] : [];
  });
  if (root.listNodes().every((node) => !node.getMesh())) return root.listMeshes().map((mesh) => [mesh, []]);
  const byName = new Map<string, { readonly node: Node; readonly mesh: Mesh }>();
  for (const one of shown) if (!byName.has(one.node.getName())) byName.set(one.node.getName(), one);
  const users = new Map<Mesh, Node[]>();
  const collisions: { readonly node: Node; readonly mesh: Mesh; readonly owner: Mesh }[] = [];
  for (const { node, mesh } of shown) {
    const names = ownersOf(node.getName());
    const owner = names.map((name) => byName.get(name)).find((one) => one !== undefined && one.node !== node);
    const known = users.get(mesh);
    if (owner) collisions.push({ node, mesh, owner: owner.mesh });
    else if (known) known.push(node);
    else users.set(mesh, [node]);
  }
  let compared = 0;
  const left = new Map<string, number>();
  const own = collisions.flatMap(({ node, mesh, owner }): (readonly [Mesh, Node[]])[] => {
    const uses = users.get(owner) ?? [];
    compared += uses.length;
    if (compared <= MAX_COMPARED && isNearestToFirst(node, uses, frames)) return [[mesh, [node]]];
    const name = uses[0]?.getName() ?? owner.getName();
    left.set(name, (left.get(name) ?? 0) + 1);
    return [];
  });
  for (const [name, count] of left)
    note(name, `${counted(count, 'collision mesh stands', 'collision meshes stand')} by other uses of it; left out`);
  return [...users, ...own];
}

/** Whether no node stands nearer to one than the first; so it is where there is none. */
function isNearestToFirst(node: Node, uses: readonly Node[], frames: ReadonlyMap<Node, Matrix>): boolean {
  const place = placeOf(node, frames);
  const squared = (use: Node): number => {
    const [x, y, z] = placeOf(use, frames);
    return (x - place[0]) * (x - place[0]) + (y - place[1]) * (y - place[1]) + (z - place[2]) * (z - place[2]);
  };
  const first = uses.length > 0 ? squared(uses[0]) : 0;
  return uses.every((use) => squared(use) >= first);
}
