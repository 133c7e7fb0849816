import { INSTANCE_BYTES, inspectKit } from '@stravel/core/pack-walk';
import { PackError, type Chunk, type Pack, type PackLevel, type Streamer } from '@stravel/reader';
import { blockFigures, nodeFigures, type BlockFigures, type NodeFigures } from './glb-figures';

/** What a device reads at a time: a chunk's own files, or those of a kit or of one of its pieces. */
export interface LoadUnit {
  /** Name of the chunk; id of the kit, or those of kit and piece with a slash between. */
  readonly key: string;
  readonly name: string;
  readonly isChunk: boolean;
  /** Seeks that it takes. */
  readonly files: number;
  readonly diskBytes: number;
  readonly memoryBytes: number;
}

/** The files of a level, as they are. */
export interface PackLevelFiles {
  /** Chunks by the numbers of the streamer's units; the resident one first. */
  readonly chunks: readonly (Chunk | undefined)[];
  /** Of each chunk that has a GLB of blocks. */
  readonly blocks: readonly (BlockFigures | undefined)[];
  /** What nodes draw, by the path of their GLB. */
  readonly nodes: ReadonlyMap<string, ReadonlyMap<string, NodeFigures>>;
  /** In order of what is read first where all is equally near: kits and pieces by their keys, then chunks. */
  readonly units: readonly LoadUnit[];
  /** Number of the load unit of each of the streamer's units. */
  readonly unitOf: readonly number[];
  /** The level's own file, its grid and what is seen: read before all else. */
  readonly own: { readonly files: number; readonly diskBytes: number };
}

/** What of a kit's file is not in what the reader gives. */
interface KitJson {
  readonly id: string;
  readonly name: string;
  readonly pieces: readonly {
    readonly id: string;
    readonly name: string;
    readonly meshes: string;
    readonly steps: readonly { readonly node: string }[];
    readonly collision?: { readonly node: string | null; readonly bytes: number };
  }[];
}

/** Reads every file of a level once. @throws PackError, CoreError 'GLB_UNREADABLE' */
export async function readLevelFiles(
  pack: Pack,
  level: PackLevel,
  streamer: Streamer,
  onRead: (fraction: number) => void,
): Promise<PackLevelFiles> {
  const heads = new Map(level.chunks.map((head) => [head.name, head]));
  const chunks: (Chunk | undefined)[] = [];
  const blocks: (BlockFigures | undefined)[] = [];
  const nodes = new Map<string, ReadonlyMap<string, NodeFigures>>();
  const made = new Map<string, { -readonly [K in keyof LoadUnit]: LoadUnit[K] }>();
  const keyOf: string[] = [];
  const add = (key: string, name: string, isChunk: boolean): { -readonly [K in keyof LoadUnit]: LoadUnit[K] } => {
    const slot = `${isChunk ? 'chunk' : 'meshes'} ${key}`;
    const unit = made.get(slot) ?? { key, name, isChunk, files: 0, diskBytes: 0, memoryBytes: 0 };
    made.set(slot, unit);
    keyOf.push(slot);
    return unit;
  };
  const meshes = await meshKeys(pack, level);
  for (const [i, { chunk: name, paths }] of streamer.units.entries()) {
    onRead(i / streamer.units.length);
    const read = await Promise.all(paths.map(async (path) => ({ path, bytes: await pack.bytes(path) })));
    const known = name === null ? meshes.get(paths[0]) : undefined;
    if (name === null && !known)
      throw new PackError('UNKNOWN', paths[0], '', 'is needed by a chunk, and no kit has a piece with it');
    const unit = known ? add(known.key, known.name, false) : add(name ?? '', name ?? '', true);
    unit.files += read.length;
    unit.diskBytes += read.reduce((sum, { bytes }) => sum + bytes.length, 0);
    unit.memoryBytes += known?.memoryBytes ?? 0;
    if (name === null) {
      for (const { path, bytes } of read) {
        if (!path.endsWith('.glb')) continue;
        nodes.set(path, nodeFigures(bytes));
        unit.memoryBytes += inspectKit(bytes).memoryBytes;
      }
      continue;
    }
    const head = heads.get(name);
    chunks[i] = head ? await level.chunk(name) : undefined;
    const glb = read.find(({ path }) => path === head?.geometry);
    blocks[i] = glb && blockFigures(glb.bytes);
    unit.memoryBytes += (blocks[i]?.memoryBytes ?? 0) + (chunks[i]?.placements.count ?? 0) * INSTANCE_BYTES;
  }
  const inOrder = [...made].sort(([a, one], [b, other]) =>
    one.isChunk === other.isChunk ? (one.isChunk || a === b ? 0 : a < b ? -1 : 1) : one.isChunk ? 1 : -1,
  );
  const numbers = new Map(inOrder.map(([slot], i) => [slot, i]));
  return {
    chunks,
    blocks,
    nodes,
    units: inOrder.map(([, unit]) => unit),
    unitOf: keyOf.map((slot) => numbers.get(slot) ?? 0),
    own: await ownFiles(pack, level),
  };
}

/** Whose files are whose: by path the key of the kit or piece, and what its collision takes beside the file. */
async function meshKeys(
  pack: Pack,
  level: PackLevel,
): Promise<Map<string, { readonly key: string; readonly name: string; memoryBytes: number }>> {
  const found = new Map<string, { readonly key: string; readonly name: string; memoryBytes: number }>();
  for (const path of new Set(level.chunks.flatMap(({ kits }) => kits))) {
    // What is read of it was checked when the reader read the same file for its chunks.
    const kit = JSON.parse(new TextDecoder().decode(await pack.bytes(path))) as KitJson;
    found.set(path, { key: kit.id, name: kit.name, memoryBytes: 0 });
    for (const { id, name, meshes, steps, collision } of kit.pieces) {
      const own =
        meshes === path.replace(/json$/, 'glb') ? { key: kit.id, name: kit.name } : { key: `${kit.id}/${id}`, name };
      const one = found.get(meshes) ?? { ...own, memoryBytes: 0 };
      const node = collision?.node ?? null;
      // What has no node of its own a game builds beside what it draws.
      if (collision && (node === null || node === steps[0].node)) one.memoryBytes += collision.bytes;
      found.set(meshes, one);
    }
  }
  return found;
}

async function ownFiles(pack: Pack, level: PackLevel): Promise<PackLevelFiles['own']> {
  const paths = [`levels/${level.key}.json`, level.json['sight'], level.json['cells']].filter(
    (path): path is string => typeof path === 'string',
  );
  const files = await Promise.all(paths.map((path) => pack.bytes(path)));
  return { files: files.length, diskBytes: files.reduce((sum, { length }) => sum + length, 0) };
}
