import type { Fields, JsonTable } from './fields';
import { PackError } from './pack-error';
import type { PackFiles } from './pack-files';
import { readKit, type Piece } from './pieces';
import { columnPlacements, listedPlacements, type Placements } from './placements';
import { readSight, type Sight } from './sight';

/** Name of the chunk that is always loaded. */
export const RESIDENT = 'resident';

/** A part of a level that is loaded and unloaded as one. */
export interface ChunkHead {
  /** `resident`, or column and row of its cell: `3,-1`. */
  readonly name: string;
  /** Path of the GLB of its blocks, null where it has none. */
  readonly geometry: string | null;
  /** Path of the file of its placements, null where they stand in the level's own. */
  readonly columns: string | null;
  /** Paths of the files of kits that it needs. */
  readonly kits: readonly string[];
  /** Paths of the GLBs that have the meshes of its pieces. */
  readonly meshes: readonly string[];
}

/** A chunk with what stands in it. */
export interface Chunk extends ChunkHead {
  /** Its blocks, as docs/formats/pack.md tells of them. */
  readonly blocks: readonly JsonTable[];
  readonly placements: Placements;
}

/** A level of a pack. */
export class PackLevel {
  readonly id: string;
  readonly key: string;
  readonly name: string;
  /** What each chunk needs, the resident one first. */
  readonly chunks: readonly ChunkHead[];
  private readonly kits = new Map<string, Promise<readonly Piece[]>>();

  /** @throws PackError */
  constructor(
    private readonly files: PackFiles,
    private readonly file: Fields,
  ) {
    this.id = file.text('id');
    this.key = file.text('key');
    this.name = file.text('name');
    this.chunks = file.tables('chunks').map(headOf);
  }

  /** Its file as it is: fields, and lists of markers, volumes, links, paths and all else. */
  get json(): JsonTable {
    return this.file.json;
  }

  /** The objects of a list such as `markers`; none where the level has no such list. */
  items(list: string): readonly Fields[] {
    return this.file.tables(list);
  }

  /** Reads a chunk: its placements and the pieces of its kits, but no mesh. @throws PackError 'UNKNOWN', or as its files do */
  async chunk(name: string): Promise<Chunk> {
    const number = this.chunks.findIndex((one) => one.name === name);
    if (number < 0)
      throw new PackError('UNKNOWN', this.file.file, 'chunks', `has no chunk ${name}; there are: ${this.names()}`);
    const head = this.chunks[number];
    const chunk = this.file.tables('chunks')[number];
    const pieces = new Map<string, Piece>();
    for (const kit of await Promise.all(head.kits.map((path) => this.kit(path))))
      for (const piece of kit) pieces.set(piece.id, piece);
    const pieceOf = (id: string): Piece => {
      const piece = pieces.get(id);
      if (!piece) throw new PackError('UNKNOWN', this.file.file, `chunks.${number}`, `places ${id}, which no kit has`);
      return piece;
    };
    const placements =
      head.columns === null
        ? listedPlacements(chunk.tables('placements'), pieceOf)
        : columnPlacements(chunk.table('columns'), await this.files.bytes(head.columns), pieceOf);
    return { ...head, blocks: chunk.tables('blocks').map(({ json }) => json), placements };
  }

  /** What is seen from where. @throws PackError */
  async sight(): Promise<Sight> {
    return readSight(await this.files.json(this.file.text('sight'), 'stravel-pack-sight'));
  }

  /** The grid of its cells; undefined for a level that is not cut. @throws PackError */
  async cells(): Promise<Fields | undefined> {
    const path = this.file.textOrNull('cells');
    return path === null ? undefined : this.files.json(path, 'stravel-pack-cells');
  }

  private kit(path: string): Promise<readonly Piece[]> {
    const known = this.kits.get(path) ?? readKit(this.files, path);
    this.kits.set(path, known);
    // One that could not be read is asked for again.
    known.catch(() => this.kits.delete(path));
    return known;
  }

  private names(): string {
    return this.chunks.map(({ name }) => name).join(' ');
  }
}

function headOf(chunk: Fields): ChunkHead {
  return {
    name: chunk.textOrNull('cell') ?? RESIDENT,
    geometry: chunk.textOrNull('geometry'),
    columns: chunk.has('columns') ? chunk.table('columns').text('file') : null,
    kits: chunk.texts('kits'),
    meshes: chunk.texts('meshes'),
  };
}
