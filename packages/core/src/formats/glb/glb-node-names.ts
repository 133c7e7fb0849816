import { openGlb } from './open-glb';

/** A node of a GLB that carries a mesh and has a name. */
export interface MeshNode {
  readonly name: string;
  readonly index: number;
  readonly node: Readonly<Record<string, unknown>>;
}

/** The named nodes with a mesh in a GLB's JSON. */
export function meshNodes(json: object): MeshNode[] {
  const { nodes } = json as { nodes?: unknown };
  if (!Array.isArray(nodes)) return [];
  return nodes.flatMap((node: Record<string, unknown> | null, index): MeshNode[] =>
    typeof node?.['name'] === 'string' && typeof node['mesh'] === 'number' ? [{ name: node['name'], index, node }] : [],
  );
}

/** Names of the nodes that carry a mesh in a GLB. @throws CoreError as `openGlb` */
export function glbNodeNames(bytes: Uint8Array): string[] {
  return meshNodes(openGlb(bytes).json).map(({ name }) => name);
}
