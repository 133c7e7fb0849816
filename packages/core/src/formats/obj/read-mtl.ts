import { counted } from '../../counted';
import type { ImportFault } from '../import-report';
import { plainMaterial, type MeshMaterial, type TextureTransform } from '../../mesh/kit-meshes';
import { linearColour } from './linear-colour';
import { objStatements } from './obj-lines';

/** A picture of a material: the address of its file, and how it lies on the surface where the file says so. */
export interface ObjPicture {
  readonly address: string;
  readonly transform?: TextureTransform;
}

/** A material of an MTL file. */
export interface ObjMaterial {
  readonly material: MeshMaterial;
  readonly pictures: Readonly<Partial<Record<'baseColour' | 'normal' | 'emissive', ObjPicture>>>;
}

/**
 * Reads the materials of an MTL file: Kd, Ke, d or Tr, Ns, map_Kd, map_Ke, map_Bump, bump and norm, with -s and -o. Colours are taken as sRGB.
 * Source: Wavefront, Advanced Visualizer manual, appendix B; roughness from Ns by √(2 ÷ (Ns + 2)), Walter et al., EGSR 2007.
 */
export function readMtl(text: string, file: string, faults: ImportFault[]): ObjMaterial[] {
  const found: { name: string; values: Map<string, string[]> }[] = [];
  for (const { words, line } of objStatements(text)) {
    const [key, ...rest] = words;
    if (key === 'newmtl') found.push({ name: rest.join(' '), values: new Map() });
    else if (found.length === 0)
      faults.push({
        severity: 'warning',
        where: `${file}, line ${line}`,
        message: `${key} comes before any newmtl and is left out`,
      });
    else found[found.length - 1].values.set(key.toLowerCase(), rest);
  }
  return found.map(({ name, values }) => {
    const numbers = (key: string, count: number): number[] | undefined => {
      const list = values.get(key)?.slice(0, count).map(Number);
      if (!list) return undefined;
      if (list.length === count && list.every(Number.isFinite)) return list;
      faults.push({
        severity: 'warning',
        where: `${file}, material ${name}`,
        message: `${key} is “${values.get(key)?.join(' ') ?? ''}”, must be ${counted(count, 'number')}; left out`,
      });
      return undefined;
    };
    const colour = (key: string): [number, number, number] | undefined =>
      numbers(key, 3)?.map(linearColour) as [number, number, number] | undefined;
    const shine = numbers('ns', 1)?.[0];
    const clear = numbers('tr', 1)?.[0];
    const alpha = unit(numbers('d', 1)?.[0] ?? (clear === undefined ? 1 : 1 - clear));
    const [r, g, b] = colour('kd') ?? [1, 1, 1];
    const material = plainMaterial(name, {
      baseColour: [r, g, b, alpha],
      emissive: colour('ke') ?? [0, 0, 0],
      roughness: shine === undefined ? 1 : unit(Math.sqrt(2 / (Math.max(0, shine) + 2))),
      alphaMode: alpha < 1 ? 'BLEND' : 'OPAQUE',
    });
    const picture = (...keys: string[]): ObjPicture | undefined => {
      const rest = keys.map((key) => values.get(key)).find((value) => value !== undefined);
      return rest && pictureOf(rest);
    };
    return {
      material,
      pictures: {
        baseColour: picture('map_kd'),
        normal: picture('norm', 'map_bump', 'bump'),
        emissive: picture('map_ke'),
      },
    };
  });
}

/** The file of a map line, behind its options; -s and -o say how it lies. */
function pictureOf(rest: readonly string[]): ObjPicture {
  const words = [...rest];
  const said = new Map<string, number[]>();
  while (words.length > 1 && words[0].startsWith('-')) {
    const option = words[0].toLowerCase();
    const numbers: number[] = [];
    words.shift();
    // An option has words or numbers of its own: all up to the next option or the last word.
    while (words.length > 1 && /^([-+]?[\d.]+(e[-+]?\d+)?|on|off)$/i.test(words[0]))
      numbers.push(Number(words.shift()));
    said.set(option, numbers);
  }
  const address = words.join(' ');
  const [scale, offset] = [said.get('-s') ?? [], said.get('-o') ?? []];
  const [u, v] = [scale[0] ?? 1, scale[1] ?? 1];
  const [right, up] = [offset[0] ?? 0, offset[1] ?? 0];
  const isPlain = u === 1 && v === 1 && right === 0 && up === 0;
  if (isPlain || ![u, v, right, up].every(Number.isFinite)) return { address };
  // Upward there, downward in glTF: the lower edge of what is scaled moves.
  return { address, transform: { offset: [right, 1 - v - up], rotation: 0, scale: [u, v] } };
}

function unit(value: number): number {
  return Math.min(1, Math.max(0, value));
}
