import type { DroppedFile } from '../formats/dropped-file';
import { fileNameOf, type FindBeside } from '../formats/files-beside';
import { decodedText } from '../formats/format-spec';
import type { ReadMeshes } from '../formats/glb/read-glb';
import type { ImportFault } from '../formats/import-report';
import { readMtl, type ObjPicture } from '../formats/obj/read-mtl';
import { readObj } from '../formats/obj/read-obj';
import { pictureSize } from '../formats/pictures/picture-size';
import { pictureType } from '../formats/pictures/picture-type';
import type { MeshMaterial, MeshOfPiece, MeshTexture, TextureUse } from '../mesh/kit-meshes';

/** glTF's code of a texture that repeats. */
const REPEAT = 10497;

/** An OBJ with the materials and pictures that it names. @param beside finds those files */
export function readObjFile(file: DroppedFile, beside: FindBeside): ReadMeshes {
  const faults: ImportFault[] = [];
  const { pieces, libraries } = readObj(decodedText(file.bytes), fileNameOf(file.name), faults);
  const textures: MeshTexture[] = [];
  const numberOf = new Map<string, number>();
  const picture = (one: ObjPicture | undefined, where: string): TextureUse | undefined => {
    if (one === undefined || one.address === '') return undefined;
    const name = one.address.split(/[\\/]/).at(-1) ?? '';
    let number = numberOf.get(one.address);
    if (number === undefined) {
      const read = readPicture(name, beside(one.address), where, faults);
      number = read ? textures.push(read) - 1 : -1;
      numberOf.set(one.address, number);
    }
    if (number < 0) return undefined;
    const plain = { texture: number, coordinates: 0, wrapS: REPEAT, wrapT: REPEAT, magFilter: null, minFilter: null };
    return one.transform ? { ...plain, transform: one.transform } : plain;
  };
  const materials = new Map<string, MeshMaterial>();
  for (const library of libraries) {
    const source = beside(library);
    if (!source) {
      faults.push({
        severity: 'error',
        where: file.name,
        message: `its materials ${library} are missing; drop that file along with it`,
      });
      continue;
    }
    for (const { material, pictures } of readMtl(decodedText(source), library, faults)) {
      const maps = Object.fromEntries(
        Object.entries(pictures).flatMap(([slot, name]) => {
          const use = picture(name, `material ${material.name}`);
          return use ? [[slot, use]] : [];
        }),
      );
      materials.set(material.name, { ...material, maps: maps as MeshMaterial['maps'] });
    }
  }
  const order = [...materials.keys()];
  for (const name of new Set(pieces.flatMap(({ parts }) => parts.map(({ material }) => material)))) {
    if (name !== null && !materials.has(name))
      faults.push({
        severity: 'warning',
        where: `material ${name}`,
        message: 'is used but not defined; its part is imported without it',
      });
  }
  const numbered = pieces.map(({ name, parts }): MeshOfPiece => ({
    name,
    parts: parts.map((part) => ({
      ...part,
      material: part.material === null ? null : numbersOf(order, part.material),
    })),
  }));
  return { meshes: { pieces: numbered, materials: [...materials.values()], textures }, faults };
}

function numbersOf(order: readonly string[], name: string): number | null {
  const number = order.indexOf(name);
  return number < 0 ? null : number;
}

function readPicture(
  name: string,
  bytes: Uint8Array | undefined,
  where: string,
  faults: ImportFault[],
): MeshTexture | undefined {
  const fail = (message: string): undefined => void faults.push({ severity: 'error', where, message });
  if (!bytes) return fail(`its picture ${name} is missing; drop it along with the OBJ`);
  const mimeType = pictureType(bytes);
  const size = mimeType && pictureSize(bytes, mimeType);
  if (!mimeType || !size) return fail(`its picture ${name} is no PNG, JPEG or WebP that can be read`);
  return { name, mimeType, bytes, widthPixels: size[0], heightPixels: size[1] };
}
