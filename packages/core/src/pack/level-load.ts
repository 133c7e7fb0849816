import { strToU8 } from 'fflate';
import { PackedBlocks, packedBlockBytes, type LevelLoad, type LoadParts } from '../budget/cost-model';
import { cutLevel, type CutLevel } from '../cells/cut-level';
import type { RunContext } from '../context/run-context';
import { canonicalJson } from '../formats/canonical-json';
import { blockSurfaceIfAny } from '../geometry/block-solid';
import type { LevelContent } from '../layout/level-content';
import type { Block } from '../model/block';
import type { CellGrid } from '../model/cell-grid';
import type { Kit, Piece } from '../model/kit';
import type { Placement } from '../model/placement';
import { cellsFile } from './cells-file';
import { chunksOf, gridOf } from './chunks';
import type { KitLoad } from './kit-load';
import { describeLevel } from './level-description';
import { masksOf } from './pack-level';
import { placementFileBytes } from './placed-json';

export interface LevelLoadInput {
  /** With its sections laid in. */
  readonly content: LevelContent;
  readonly pieces: Readonly<Record<string, Piece>>;
  readonly kits: Readonly<Record<string, Kit>>;
  readonly kitLoads: Readonly<Record<string, KitLoad>>;
  /** How it is cut; null packs it as one. */
  readonly grid: CellGrid | null;
}

/** The files of a level that belong to no chunk: its own, what is seen, the grid, the masks. */
export function levelFiles(input: LevelLoadInput, cut: CutLevel): Omit<LoadParts, 'memoryBytes'> {
  const { content, grid } = input;
  const masks = masksOf(content);
  const chunks = chunksOf(content, cut, grid === null).map((chunk) => ({ chunk, hasGeometry: chunk.blocks.some((block) => blockSurfaceIfAny(block)) }));
  // Placements are measured one by one: their text as a whole may be long.
  let placedBytes = 0;
  const measured = (placement: Placement): null => {
    placedBytes += placementFileBytes(placement);
    return null;
  };
  const description = describeLevel({ ...input, number: null, sets: [], chunks, masks: masks.map(({ described }) => described), hasCells: grid !== null }, measured);
  const text = strToU8(canonicalJson(description)).length;
  const files = [text, 0, ...(grid ? [cellsFile(grid, cut).length] : []), ...masks.map(({ file }) => file.bytes.length)];
  return { files: files.length, diskBytes: files.reduce((sum, bytes) => sum + bytes, placedBytes) };
}

/**
 * What a game loads for a whole level, cut or not.
 * @throws CoreError 'CELL_PIECE_MISSING' naming the placement, 'CANCELLED'
 */
export function levelLoad(input: LevelLoadInput, context: RunContext): LevelLoad {
  const { content, grid } = input;
  const cut = cutLevel({ ...input, grid: gridOf(content.level.id, grid) }, context);
  const rest = levelFiles(input, cut);
  const chunks = chunksOf(content, cut, grid === null).map(({ blocks }) => packedBlocks(blocks));
  const kits = cut.kits.reduce(plus, { files: 0, diskBytes: 0, memoryBytes: 0 });
  const files = rest.files + sumOf(chunks.map((chunk) => chunk.files));
  const diskBytes = rest.diskBytes + sumOf(chunks.map(({ bytes }) => bytes));
  const memoryBytes = [cut.resident, ...cut.cells].reduce((sum, part) => sum + part.memoryBytes, 0);
  const strata = content.strata.map(({ stratum, content: { block, placement } }) => ({
    stratum: stratum.id,
    diskBytes: sumOf(block.map(blockFileBytes)) + sumOf(placement.map(placementFileBytes)),
  }));
  return {
    files: files + kits.files,
    memoryBytes: memoryBytes + kits.memoryBytes,
    diskBytes: diskBytes + kits.diskBytes,
    isCut: grid !== null,
    kits,
    own: { files, memoryBytes: 0, diskBytes: diskBytes - sumOf(strata.map((one) => one.diskBytes)) },
    strata,
  };
}

function packedBlocks(blocks: readonly Block[]): PackedBlocks {
  const packed = new PackedBlocks();
  for (const block of blocks) {
    const surface = blockSurfaceIfAny(block);
    if (surface) packed.add(block.material, surface);
  }
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
