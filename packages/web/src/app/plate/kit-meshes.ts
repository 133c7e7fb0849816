import { collisionNodeName, stepNodeName, type Piece } from '@stravel/core';
import { Mesh, Texture, type BufferGeometry, type Material } from 'three';
import { GLTFLoader, type GLTFLoaderPlugin, type GLTFParser } from 'three/addons/loaders/GLTFLoader.js';

const PACKED_TEXTURES = 'KHR_texture_basisu';

/** What is drawn of one step of a piece: one geometry a material. */
export interface StepMesh {
  readonly parts: readonly { readonly geometry: BufferGeometry; readonly material: Material }[];
  /** Measured distance from the full step, metres. */
  readonly deviationMetres: number;
}

/** What is drawn of a piece, full step first. */
export interface PieceMesh {
  readonly steps: readonly StepMesh[];
  /** What stands in the node of its collision; absent where it has none of its own. */
  readonly collision?: readonly BufferGeometry[];
}

/** KTX2 textures go to the pack unread: here their materials are drawn without. */
function withoutPackedTextures({ json }: GLTFParser): GLTFLoaderPlugin {
  const textures = (json as { readonly textures?: readonly { readonly extensions?: object }[] }).textures ?? [];
  return {
    name: PACKED_TEXTURES,
    // The loader takes a texture that is nothing for one that it could not load; its types know none.
    loadTexture: (index) =>
      Object.hasOwn(textures[index].extensions ?? {}, PACKED_TEXTURES)
        ? (Promise.resolve(null) as unknown as Promise<Texture>)
        : null,
  };
}

/** What the nodes of a GLB draw, by their names. @param loader has what its extensions need @throws Error when the bytes are no GLB */
export async function readNodeMeshes(glb: ArrayBuffer, loader: GLTFLoader): Promise<Map<string, StepMesh['parts']>> {
  const { scene } = await loader.register(withoutPackedTextures).parseAsync(glb, '');
  // The loader changes names that its animations could not address; nodes keep their own in userData.
  const byName = new Map<string, StepMesh['parts']>();
  for (const node of scene.children) {
    const parts: { geometry: BufferGeometry; material: Material }[] = [];
    node.traverse((child) => {
      if (child instanceof Mesh && !Array.isArray(child.material))
        parts.push({ geometry: child.geometry as BufferGeometry, material: child.material as Material });
    });
    byName.set((node.userData['name'] as string | undefined) ?? node.name, parts);
  }
  return byName;
}

/**
 * The meshes of a kit's pieces from its GLB, by piece id.
 * @throws Error when the bytes are no GLB, or a piece has no node of its name
 */
export async function readKitMeshes(glb: ArrayBuffer, pieces: readonly Piece[]): Promise<Map<string, PieceMesh>> {
  const meshes = new Map<string, PieceMesh>();
  const byName = await readNodeMeshes(glb, new GLTFLoader());
  for (const piece of pieces) {
    const steps = piece.steps.flatMap(({ deviationMetres }, step): StepMesh[] => {
      const parts = byName.get(stepNodeName(piece.name, step));
      return parts ? [{ parts, deviationMetres: deviationMetres ?? 0 }] : [];
    });
    if (steps.length === 0) throw new Error(`The kit's GLB has no mesh named ${piece.name}.`);
    const collision = byName.get(collisionNodeName(piece.name))?.map(({ geometry }) => geometry);
    meshes.set(piece.id, { steps, ...(collision ? { collision } : {}) });
  }
  return meshes;
}

/**
 * Frees what renderers made of meshes that outlive them; the next one that draws them makes it anew. A renderer is held by
 * everything that it has drawn until then, its canvas and context with it.
 */
export function letGo(meshes: Iterable<PieceMesh>): void {
  for (const { steps } of meshes) {
    for (const { geometry, material } of steps.flatMap(({ parts }) => parts)) {
      geometry.dispose();
      for (const value of Object.values(material) as unknown[]) if (value instanceof Texture) value.dispose();
      material.dispose();
    }
  }
}
