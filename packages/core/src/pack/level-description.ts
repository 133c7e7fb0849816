import type { KitLoads } from '../budget/mesh-files';
import { plainJson } from '../json/plain-json';
import { turnQuaternion } from '../geometry/turn-quaternion';
import type { LevelContent } from '../layout/level-content';
import { hasPlacedJson, type PlacedFiles } from '../layout/placed-columns/placed-files';
import type { Json } from '../model/json';
import type { Kit, Piece } from '../model/kit';
import type { Placement } from '../model/placement';
import type { BlockRanges } from './block-ranges';
import type { ChunkColumns } from './chunk-columns';
import { chunkName, type Chunk } from './chunks';
import { kitPackPath, meshPaths } from './mesh-paths';
import { placementAt } from '../items/placement/columns';
import { packedGroup, packedValues } from '../items/packed-form';
import { describedBlocks } from './described-blocks';
import { packedLists } from '../items/stored';
import { packHead } from '../model/pack-format';

/** A chunk, and what of it stands in files of its own. */
export interface DescribedChunk {
  readonly chunk: Chunk;
  readonly blocks: BlockRanges;
  readonly columns: ChunkColumns | undefined;
}

/** What a level's file tells beside its content. */
export interface DescribedLevel {
  readonly content: LevelContent;
  readonly pieces: Readonly<Record<string, Piece>>;
  readonly kits: Readonly<Record<string, Kit>>;
  /** What their files take: it tells whether pieces have their meshes apart. */
  readonly kitLoads: KitLoads;
  /** Number in order of play from 1; null for trial and tool levels. */
  readonly number: number | null;
  /** Names of the sets that it stands in, from the top. */
  readonly sets: readonly string[];
  readonly chunks: readonly DescribedChunk[];
  /** Absent: placements are JSON alone. */
  readonly placed?: PlacedFiles;
  /** Its masks as they are described, in order. */
  readonly masks: readonly Json[];
  readonly hasCells: boolean;
}

/** Folder of a level's files; the file that describes it lies beside. */
export function levelFolder({ level }: LevelContent): string {
  return `levels/${level.key}`;
}

/** Path of what is seen from where in a level. */
export function sightPath(content: LevelContent): string {
  return `${levelFolder(content)}/sight.json`;
}

/** A level's file, without its placements: those are `placedJson`, in the lists of the chunks. */
export function describeLevel(described: DescribedLevel, placed: (placement: Placement) => Json): Json {
  const { content } = described;
  const { level, strata } = content;
  const folder = levelFolder(content);
  const paths = pathsOfMeshes(described);
  const markers = strata.flatMap(({ content: items }) => items.marker);
  return {
    ...packHead('stravel-pack-level'),
    id: level.id,
    key: level.key,
    name: level.name,
    number: described.number,
    sets: [...described.sets],
    purpose: level.purpose,
    code: level.code,
    values: plainJson(level.values),
    openSky: level.openSky,
    markers: markers.map(({ id, kind, position, turn, entry, values, group }) => ({
      id,
      kind,
      translation: [...position],
      rotation: turnQuaternion([turn, 0, 0]),
      ...(entry ? { entry } : {}),
      ...packedValues(values),
      ...packedGroup(group),
    })),
    ...packedLists(strata.map(({ content: items, uses = [] }) => ({ ...items, assembly: uses }))),
    ...(described.masks.length > 0 ? { masks: [...described.masks] } : {}),
    chunks: described.chunks.map((one) => describeChunk(one, described, paths, placed)),
    sight: sightPath(content),
    cells: described.hasCells ? `${folder}/cells.json` : null,
  };
}

function describeChunk(
  { chunk, blocks, columns }: DescribedChunk,
  { content, kits, pieces, placed: files }: DescribedLevel,
  paths: ReadonlyMap<string, string>,
  placed: (placement: Placement) => Json,
): Json {
  const used = [...new Set(chunk.placements.map(({ of, i }) => of.pieces[i]))];
  return {
    cell: chunk.cell === '' ? null : chunk.cell,
    geometry: blocks.parts.length > 0 ? `${levelFolder(content)}/${chunkName(chunk)}.glb` : null,
    kits: [...new Set(used.map((id) => kitPackPath(kits[pieces[id].kit])))].sort().map((path) => `${path}.json`),
    meshes: [...new Set(used.flatMap((id) => paths.get(id) ?? []))].sort(),
    blocks: describedBlocks(chunk.blocks, blocks),
    ...(columns ? { columns: columns.described } : {}),
    ...(!columns || hasPlacedJson(files)
      ? { placements: chunk.placements.map(({ of, i }) => placed(placementAt(of, i))) }
      : {}),
  };
}

/** Paths of the GLBs of all pieces of the kits that a level places, by the piece's id. */
function pathsOfMeshes({ chunks, pieces, kits, kitLoads }: DescribedLevel): ReadonlyMap<string, string> {
  const used = new Set<string>();
  for (const { chunk } of chunks) for (const { of, i } of chunk.placements) used.add(pieces[of.pieces[i]].kit);
  const byKit = new Map([...used].map((id): [string, Piece[]] => [id, []]));
  for (const piece of Object.values(pieces)) byKit.get(piece.kit)?.push(piece);
  return new Map(
    [...byKit].flatMap(([id, own]) => [...meshPaths(kits[id], own, kitLoads[id]?.pieces ? 'perPiece' : 'perKit')]),
  );
}
