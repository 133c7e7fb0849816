import type { MeshMaterial, TextureUse } from './kit-meshes';

/** Every use of a texture by a material, those of its extensions among them. */
export function usesOf({ maps, extensions }: MeshMaterial): TextureUse[] {
  return [...Object.values(maps), ...extensions.flatMap((extension) => Object.values(extension.maps))];
}

/** A material with its uses of textures changed. @param change gives the use in its place, undefined to leave it out */
export function withUses(material: MeshMaterial, change: (use: TextureUse) => TextureUse | undefined): MeshMaterial {
  const changed = <M extends Readonly<Record<string, TextureUse>>>(maps: M): M =>
    Object.fromEntries(
      Object.entries(maps).flatMap(([key, use]) => {
        const after = change(use);
        return after ? [[key, { ...use, ...after }]] : [];
      }),
    ) as M;
  return {
    ...material,
    maps: changed(material.maps as Readonly<Record<string, TextureUse>>),
    extensions: material.extensions.map((extension) => ({ ...extension, maps: changed(extension.maps) })),
  };
}
