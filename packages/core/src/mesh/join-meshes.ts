import type { KitMeshes, MeshPart } from './kit-meshes';
import { usesOf, withUses } from './texture-uses';

/** Two sets of meshes as one; numbers of the second are moved up. */
export function joinedMeshes(a: KitMeshes, b: KitMeshes): KitMeshes {
  const materials = b.materials.map((material) =>
    withUses(material, (use) => ({ ...use, texture: use.texture + a.textures.length })),
  );
  const part = (one: MeshPart): MeshPart => ({
    ...one,
    material: one.material === null ? null : one.material + a.materials.length,
  });
  return {
    pieces: [...a.pieces, ...b.pieces.map((piece) => ({ ...piece, parts: piece.parts.map(part) }))],
    materials: [...a.materials, ...materials],
    textures: [...a.textures, ...b.textures],
  };
}

/** Without materials and textures that no piece uses. */
export function prunedMeshes({ pieces, materials, textures }: KitMeshes): KitMeshes {
  const usedMaterials = [
    ...new Set(pieces.flatMap(({ parts }) => parts.flatMap(({ material }) => material ?? []))),
  ].sort((a, b) => a - b);
  const usedTextures = [
    ...new Set(usedMaterials.flatMap((i) => usesOf(materials[i]).map(({ texture }) => texture))),
  ].sort((a, b) => a - b);
  const newMaterial = new Map(usedMaterials.map((old, i) => [old, i]));
  const newTexture = new Map(usedTextures.map((old, i) => [old, i]));
  const part = (one: MeshPart): MeshPart => ({
    ...one,
    material: one.material === null ? null : (newMaterial.get(one.material) ?? null),
  });
  return {
    pieces: pieces.map((piece) => ({ ...piece, parts: piece.parts.map(part) })),
    materials: usedMaterials.map((i) =>
      withUses(materials[i], (use) => ({ ...use, texture: newTexture.get(use.texture) ?? 0 })),
    ),
    textures: usedTextures.map((i) => textures[i]),
  };
}
