import { strToU8 } from 'fflate';
import { PackedBlocks, packedBlockBytes, type LevelLoad, type LoadParts } from '../budget/cost-model';
import type { KitLoads } from '../budget/mesh-files';
import { cutLevel } from '../cells/cut-level';
import type { RunContext } from '../context/run-context';
import { canonicalJson } from '../json/canonical-json';
import { blockSurfaceIfAny } from '../geometry/block-solid';
import type { LevelContent } from '../layout/level-content';
import type { Block } from '../model/block';
import type { CellGrid } from '../model/cell-grid';
import type { Kit, Piece } from '../model/kit';
import { cellsFile } from '../cells/cells-file';
import { blockRanges, type BlockRanges } from './block-ranges';
import { chunkColumns } from './chunk-columns';
import { chunkName, chunksOf, gridOf } from './chunks';
import { describeLevel, levelFolder, type DescribedChunk } from './level-description';
import { masksOf } from './pack-level';
import { placementsOf } from '../layout/level-placements';
import { hasPlacedJson, type PlacedFiles } from '../layout/placed-columns/placed-files';
import { placedFileBytes } from '../layout/placed-json';

export interface LevelLoadInput {
  /** With its sections laid in. */
  readonly content: LevelContent;
  readonly pieces: Readonly<Record<string, Piece>>;
  readonly kits: Readonly<Record<string, Kit>>;
  readonly kitLoads: KitLoads;
  /** How it is cut; null packs it as one. */
  readonly grid: CellGrid | null;
  /** Absent: placements are JSON in the level's own file. */
  readonly placed?: PlacedFiles;
}

/**
 * What a game loads for a whole level, cut or not.
 * @throws CoreError 'CELL_PIECE_MISSING' naming the placement, 'CELL_KIT_MISSING', 'CANCELLED'
 */
export function levelLoad(input: LevelLoadInput, context: RunContext): LevelLoad {
  const { content, grid, pieces, placed } = input;
  const cut = cutLevel({ ...input, placed: undefined, grid: gridOf(content.level.id, grid) }, context);
  const chunks = chunksOf(content, grid ? cut : undefined).map((chunk) => ({
    chunk,
    blocks: blockRanges(chunk.blocks),
    columns: chunkColumns(chunk, `${levelFolder(content)}/${chunkName(chunk)}.bin`, pieces, placed),
  }));
  const columnBytes = bytesOfColumns(chunks);
  const strata = content.strata.map((one) => ({
    stratum: one.stratum.id,
    blockBytes: sumOf(one.content.block.map(blockFileBytes)),
    placedBytes: hasPlacedJson(placed) ? placedFileBytes(placementsOf(one)) : 0,
    columnBytes: columnBytes.get(one.stratum.id) ?? 0,
  }));
  const masks = masksOf(content);
  const described = {
    ...input,
    number: null,
    sets: [],
    chunks,
    masks: masks.map((mask) => mask.described),
    hasCells: grid !== null,
  };
  // Placements were measured one by one: their text as a whole may be long. What is seen counts with its seek alone.
  const text = strToU8(canonicalJson(describeLevel(described, () => null))).length;
  const files = [
    text,
    0,
    ...(grid ? [cellsFile(grid, cut, content).length] : []),
    ...masks.map(({ file }) => file.bytes.length),
    ...chunks.filter(({ blocks }) => blocks.parts.length > 0).map(({ blocks }) => packedBlocks(blocks).bytes),
    ...chunks.flatMap(({ columns }) => (columns ? [columns.layout.bytes] : [])),
  ];
  const placedBytes = sumOf(strata.map((one) => one.placedBytes));
  const diskBytes = sumOf(files) + placedBytes;
  const memoryBytes = sumOf([cut.resident, ...cut.cells].map((part) => part.memoryBytes));
  const kits = cut.meshFiles.reduce(plus, { files: 0, diskBytes: 0, memoryBytes: 0 });
  return {
    files: files.length + kits.files,
    memoryBytes: memoryBytes + kits.memoryBytes,
    diskBytes: diskBytes + kits.diskBytes,
    isCut: grid !== null,
    kits,
    own: {
      files: files.length,
      memoryBytes: 0,
      diskBytes: sumOf(files) - sumOf(strata.map((one) => one.blockBytes + one.columnBytes)),
    },
    strata: strata.map((one) => ({
      stratum: one.stratum,
      diskBytes: one.blockBytes + one.placedBytes + one.columnBytes,
    })),
  };
}

/** Bytes that placements take in files of columns, by their stratum. */
function bytesOfColumns(chunks: readonly Pick<DescribedChunk, 'chunk' | 'columns'>[]): ReadonlyMap<string, number> {
  const bytes = new Map<string, number>();
  for (const { chunk, columns } of chunks) {
    if (!columns) continue;
    const { layout, builder } = columns;
    // The ids of each are its own; the rest is shared out evenly.
    const rest = (layout.bytes - layout.ids.count) / builder.count;
    const shares = new Map<string, number>();
    for (const { of, i, stratum } of chunk.placements)
      shares.set(stratum, (shares.get(stratum) ?? 0) + rest + of.ids[i].length);
    for (const [stratum, share] of shares) bytes.set(stratum, (bytes.get(stratum) ?? 0) + Math.floor(share));
  }
  return bytes;
}

function packedBlocks({ solids }: BlockRanges): PackedBlocks {
  const packed = new PackedBlocks();
  for (const solid of solids) if (solid) packed.add(solid.block, solid.surface);
  return packed;
}

function blockFileBytes(block: Block): number {
  const surface = blockSurfaceIfAny(block);
  return surface ? packedBlockBytes(surface) : 0;
}

function sumOf(values: readonly number[]): number {
  return values.reduce((sum, value) => sum + value, 0);
}

function plus(a: LoadParts, b: LoadParts): LoadParts {
  return { files: a.files + b.files, diskBytes: a.diskBytes + b.diskBytes, memoryBytes: a.memoryBytes + b.memoryBytes };
}
