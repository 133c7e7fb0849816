import { polygonTriangles } from '../../geometry/polygon-triangles';
import type { ImportFault } from '../import-report';
import type { MeshAttribute, MeshOfPiece, MeshPart } from '../../mesh/kit-meshes';
import { linearColour } from './linear-colour';
import { objStatements } from './obj-lines';

/** Lines with faults that are told one by one. */
const MAX_FAULTS = 20;
/** Keys that say nothing about surfaces, passed over in silence. */
const QUIET = new Set(['s', 'g', 'vp', 'lod', 'shadow_obj', 'trace_obj']);

/** The objects of an OBJ file; materials by name. */
export interface ObjMeshes {
  readonly pieces: readonly (Omit<MeshOfPiece, 'parts'> & {
    readonly parts: readonly (Omit<MeshPart, 'material'> & { readonly material: string | null })[];
  })[];
  /** What each mtllib names: one file, or several. */
  readonly libraries: readonly string[];
}

/** One part while it is read. Corners that name the same position, coordinates and normal are one vertex. */
class PartBuilder {
  readonly vertices = new Map<string, number>();
  readonly corners: number[] = [];
  readonly indices: number[] = [];
}

/**
 * Reads an OBJ file: every object is a piece, every material in it a part. Polygons are cut into triangles, concave ones too.
 * Colours behind a position are taken as sRGB, from 0 to 1, or to 255 where one is above 1. Faults name their line.
 * Source: Wavefront, Advanced Visualizer manual, appendix B1.
 */
export function readObj(text: string, file: string, faults: ImportFault[]): ObjMeshes {
  return new ObjReader(file, faults).read(text);
}

class ObjReader {
  private readonly positions: number[] = [];
  private readonly coordinates: number[] = [];
  private readonly normals: number[] = [];
  /** Red, green, blue by position; NaN where it has none. Empty as long as no position has one. */
  private readonly colours: number[] = [];
  private mostColour = 0;
  private readonly libraries: string[] = [];
  private readonly objects = new Map<string, Map<string | null, PartBuilder>>();
  private object: string;
  private material: string | null = null;
  private line = 0;
  private readonly counts = new Map<string, number>();

  constructor(
    private readonly file: string,
    private readonly faults: ImportFault[],
  ) {
    this.object = file.replace(/\.[^.]*$/, '');
  }

  read(text: string): ObjMeshes {
    for (const { words, line } of objStatements(text)) {
      this.line = line;
      this.take(words);
    }
    for (const [message, count] of this.counts) {
      if (count > MAX_FAULTS)
        this.faults.push({
          severity: 'error',
          where: this.file,
          message: `${message}: ${count - MAX_FAULTS} more lines`,
        });
    }
    const pieces = [...this.objects].map(([name, parts]) => ({
      name,
      parts: [...parts].map(([material, builder]) => this.finish(material, builder)),
    }));
    return { pieces, libraries: this.libraries };
  }

  private take(words: readonly string[]): void {
    switch (words[0]) {
      case 'v':
        this.colour(words);
        return this.numbers(words, 3, this.positions);
      case 'vt':
        return this.numbers(words, 2, this.coordinates);
      case 'vn':
        return this.numbers(words, 3, this.normals);
      case 'f':
        return this.face(words);
      case 'o':
        this.object = words.slice(1).join(' ') || `object at line ${this.line}`;
        return;
      case 'usemtl':
        this.material = words.slice(1).join(' ') || null;
        return;
      case 'mtllib':
        this.libraries.push(...namesOf(words.slice(1)));
        return;
      default:
        if (QUIET.has(words[0])) return;
        if (!this.counts.has(words[0]))
          this.faults.push({
            severity: 'note',
            where: `${this.file}, line ${this.line}`,
            message: `${words[0]} is left out: only triangles and polygons are drawn`,
          });
        this.counts.set(words[0], 0);
    }
  }

  /** What is not a number stays NaN, so that the check of the mesh finds what uses it. */
  private numbers(words: readonly string[], count: number, out: number[]): void {
    for (let k = 1; k <= count; k++) {
      // A texture may have one coordinate only.
      const value = words[k] === undefined ? (out === this.coordinates ? 0 : NaN) : Number(words[k]);
      if (!Number.isFinite(value)) this.fail(`“${words[k] ?? ''}” is not a number`);
      out.push(value);
    }
  }

  /** x y z r g b: what stands behind a position is its colour; x y z w has none. */
  private colour(words: readonly string[]): void {
    const vertex = this.positions.length;
    if (words.length < 7) {
      if (this.colours.length > 0) this.colours.push(NaN, NaN, NaN);
      return;
    }
    while (this.colours.length < vertex) this.colours.push(NaN);
    for (let k = 4; k < 7; k++) {
      const value = Number(words[k]);
      if (value > this.mostColour) this.mostColour = value;
      this.colours.push(value);
    }
  }

  private face(words: readonly string[]): void {
    if (words.length < 4) return this.fail(`a face needs three corners, has ${words.length - 1}`);
    const corners: number[][] = [];
    for (let k = 1; k < words.length; k++) {
      const corner = this.corner(words[k]);
      if (!corner) return;
      corners.push(corner);
    }
    const object = this.objects.get(this.object) ?? new Map<string | null, PartBuilder>();
    this.objects.set(this.object, object);
    const part = object.get(this.material) ?? new PartBuilder();
    object.set(this.material, part);
    const numbers = corners.map((corner) => {
      const key = corner.join('/');
      let number = part.vertices.get(key);
      if (number === undefined) {
        number = part.vertices.size;
        part.vertices.set(key, number);
        part.corners.push(...corner);
      }
      return number;
    });
    if (numbers.length === 3) part.indices.push(...numbers);
    else {
      const places = corners.flatMap(([position]) => this.positions.slice(position * 3, position * 3 + 3));
      for (const k of polygonTriangles(places)) part.indices.push(numbers[k]);
    }
  }

  /** Numbers of position, coordinates and normal from 0; −1 for none. */
  private corner(word: string): number[] | undefined {
    const parts = word.split('/');
    const counts = [this.positions.length / 3, this.coordinates.length / 2, this.normals.length / 3];
    const names = ['positions', 'texture coordinates', 'normals'];
    const out = [-1, -1, -1];
    for (let k = 0; k < 3; k++) {
      if (parts[k] === undefined || parts[k] === '') {
        if (k === 0) return void this.fail(`the corner “${word}” names no position`);
        continue;
      }
      const number = Number(parts[k]);
      out[k] = number < 0 ? counts[k] + number : number - 1;
      if (!Number.isInteger(number) || number === 0 || out[k] < 0 || out[k] >= counts[k])
        return void this.fail(`the corner “${word}” is not among ${counts[k]} ${names[k]}`);
    }
    return out;
  }

  private fail(message: string): void {
    const kind = message.replace(/“[^”]*”|\d+/g, '…');
    const count = (this.counts.get(kind) ?? 0) + 1;
    this.counts.set(kind, count);
    if (count <= MAX_FAULTS) this.faults.push({ severity: 'error', where: `${this.file}, line ${this.line}`, message });
  }

  private finish(
    material: string | null,
    { corners, indices }: PartBuilder,
  ): ObjMeshes['pieces'][number]['parts'][number] {
    const vertices = corners.length / 3;
    const gather = (which: number, source: readonly number[], size: number): Float32Array => {
      const values = new Float32Array(vertices * size);
      for (let v = 0; v < vertices; v++)
        for (let k = 0; k < size; k++) values[v * size + k] = source[corners[v * 3 + which] * size + k];
      return values;
    };
    const has = (which: number): boolean => {
      for (let v = 0; v < vertices; v++) if (corners[v * 3 + which] < 0) return false;
      return true;
    };
    const attributes: MeshAttribute[] = [{ semantic: 'POSITION', size: 3, values: gather(0, this.positions, 3) }];
    if (has(2)) attributes.push({ semantic: 'NORMAL', size: 3, values: gather(2, this.normals, 3) });
    if (has(1)) {
      const values = gather(1, this.coordinates, 2);
      // The format counts from the lower edge of a picture, glTF from the upper.
      for (let i = 1; i < values.length; i += 2) values[i] = 1 - values[i];
      attributes.push({ semantic: 'TEXCOORD_0', size: 2, values });
    }
    const colours = this.coloursOf(corners);
    if (colours) attributes.push({ semantic: 'COLOR_0', size: 3, values: colours });
    return { material, attributes, indices: Uint32Array.from(indices) };
  }

  /** Colours of all vertices of a part; undefined where one has none. */
  private coloursOf(corners: readonly number[]): Float32Array | undefined {
    const values = new Float32Array(corners.length);
    const most = this.mostColour > 1 ? 255 : 1;
    for (let v = 0; v < corners.length; v += 3) {
      for (let k = 0; k < 3; k++) {
        const colour = this.colours[corners[v] * 3 + k];
        if (colour === undefined || Number.isNaN(colour)) return undefined;
        values[v + k] = linearColour(colour / most);
      }
    }
    return values;
  }
}

/** Files that an mtllib names, without folders: one whose name has spaces, or several where each word is such a file. */
function namesOf(words: readonly string[]): string[] {
  const names = words.every((word) => /\.mtl$/i.test(word)) ? words : [words.join(' ')];
  return names.map((name) => name.split(/[\\/]/).at(-1) ?? '');
}
