import { INSTANCE_BYTES, PackedBlocks, blockBytes, type LoadParts } from '../budget/cost-model';
import { meshFilesOf, type KitLoads } from '../budget/mesh-files';
import type { RunContext } from '../context/run-context';
import { CoreError } from '../errors';
import { blockSurfaceIfAny, type BlockSurface } from '../geometry/block-solid';
import type { StandingLevel } from '../layout/standing-level';
import { placementsOf } from '../layout/level-placements';
import { ColumnsBuilder } from '../layout/placed-columns/columns-builder';
import { ColumnsLayout } from '../layout/placed-columns/columns-layout';
import type { PlacedAt, PlacedFiles } from '../layout/placed-columns/placed-files';
import { placedBounds } from '../layout/placement-bounds';
import type { Block } from '../model/block';
import type { CellGrid } from '../model/cell-grid';
import type { Kit, Piece } from '../model/kit';
import type { Box3, PlanPoint } from '../model/vector';

/** A thing reaches into a cell when it does so by more than this, metres. */
const REACH_METRES = 0.01;
/** Things that reach over more cells than this along one side are always loaded. */
const MAX_CELLS_ACROSS = 2;
/** Cell of things that are always loaded. */
export const RESIDENT = -1;

/** What a level is cut from; its recipes' sections laid in. */
export interface CutInput {
  readonly content: StandingLevel;
  readonly pieces: Readonly<Record<string, Piece>>;
  readonly kits: Readonly<Record<string, Pick<Kit, 'name'>>>;
  /** What each kit's files cost, by its id. */
  readonly kitLoads: KitLoads;
  readonly grid: CellGrid;
  /** Absent: placements are JSON in the level's own file. */
  readonly placed?: PlacedFiles;
}

/** What is in a cell, or always loaded. */
export interface CellContents {
  readonly blocks: number;
  readonly placements: number;
  readonly triangles: number;
  /** Blocks and instances; kits are counted apart. */
  readonly memoryBytes: number;
  /** That of its blocks, and that of its placements where those are columns. */
  readonly files: number;
  /** Of those files. */
  readonly diskBytes: number;
  /** Numbers of the files of meshes that it needs, ascending. */
  readonly meshFiles: readonly number[];
}

/** A part of a level that is loaded and dropped as one. */
export interface Cell extends CellContents {
  /** Column and row in the grid, '3,-1'. */
  readonly key: string;
  readonly min: PlanPoint;
  readonly max: PlanPoint;
  /** Things in it that reach into other cells. */
  readonly straddling: number;
}

/** A thing that reaches over its cell's sides, or is always loaded. */
export interface PlacedThing {
  readonly id: string;
  readonly kind: 'block' | 'placement';
  readonly stratum: string;
  readonly name: string;
  /** Number of its cell, or RESIDENT. */
  readonly cell: number;
  /** Cells that it reaches into, its own among them. */
  readonly cells: number;
  readonly bounds: Box3;
}

export interface CutLevel {
  /** In order of column, then row. */
  readonly cells: readonly Cell[];
  readonly resident: CellContents;
  /** Files of kits and, where these have their meshes apart, of pieces, by their key. */
  readonly meshFiles: readonly ({ readonly key: string; readonly name: string } & LoadParts)[];
  /** Reaching over most cells first. */
  readonly straddlers: readonly PlacedThing[];
  /** Things that are always loaded because they are too large for a cell. */
  readonly residentThings: readonly PlacedThing[];
  /** Number of the cell of each block and placement by id; RESIDENT for those always loaded. */
  readonly cellOfThing: Readonly<Record<string, number>>;
}

interface Thing {
  readonly id: string;
  readonly kind: 'block' | 'placement';
  readonly stratum: string;
  readonly name: string;
  readonly bounds: Box3;
  readonly triangles: number;
  readonly memoryBytes: number;
  /** What a block adds to its chunk's file. */
  readonly packed?: { readonly surface: BlockSurface; readonly block: Block };
  /** Which placement it is, and of what. */
  readonly placement?: { readonly at: PlacedAt; readonly piece: Piece };
  /** Keys of the files that a placement's piece needs. */
  readonly meshFiles: readonly string[];
}

interface Tally {
  blocks: number;
  placements: number;
  triangles: number;
  memoryBytes: number;
  readonly packed: PackedBlocks;
  /** Its placements as columns, where they are. */
  readonly columns: ColumnsBuilder | undefined;
  straddling: number;
  readonly meshFiles: Set<string>;
}

/**
 * Cuts a level by a regular grid. A thing belongs to the cell in which the middle of its bounds lies; what stands in a
 * resident stratum, or reaches over more than two cells along a side, is always loaded.
 * @throws CoreError 'CELL_PIECE_MISSING' naming the placement, 'CELL_KIT_MISSING', 'CANCELLED'
 */
export function cutLevel(
  { content, pieces, kits, kitLoads, grid, placed: files }: CutInput,
  context: RunContext,
): CutLevel {
  const residentStrata = new Set(grid.resident);
  const tallies = new Map<string, Tally & { readonly column: number; readonly row: number }>();
  const resident = newTally(files);
  const placed: (Omit<PlacedThing, 'cell'> & { readonly key: string | undefined })[] = [];
  const cellKeyOfThing: [string, string | undefined][] = [];
  /** Keys of the files of every piece that is placed. */
  const keys = new Map<string, readonly string[]>();
  const keysOf = (piece: Piece): readonly string[] => {
    const known = keys.get(piece.id) ?? meshFilesOf(piece, kitLoads).map(({ key }) => key);
    keys.set(piece.id, known);
    return known;
  };
  for (const one of content.strata) {
    const { stratum } = one;
    let count = 0;
    for (const thing of thingsOf(one, pieces, keysOf)) {
      if (count++ % 1024 === 0) context.checkCancelled();
      const { bounds, kind } = thing;
      const reach = [0, 2].map((k) => [
        cellOf(grid, k, bounds.min[k] + REACH_METRES),
        cellOf(grid, k, bounds.max[k] - REACH_METRES),
      ]);
      const across = reach.map(([from, to]) => Math.max(1, to - from + 1));
      const column = cellOf(grid, 0, (bounds.min[0] + bounds.max[0]) / 2);
      const row = cellOf(grid, 2, (bounds.min[2] + bounds.max[2]) / 2);
      const isLarge = Math.max(...across) > MAX_CELLS_ACROSS;
      const key = isLarge || residentStrata.has(stratum.id) ? undefined : `${column},${row}`;
      let tally: Tally = resident;
      if (key !== undefined) {
        const known = tallies.get(key) ?? { ...newTally(files), column, row };
        tallies.set(key, known);
        tally = known;
      }
      add(tally, thing);
      const cells = across[0] * across[1];
      cellKeyOfThing.push([thing.id, key]);
      if (cells > 1 && (key !== undefined || isLarge)) {
        if (key !== undefined) tally.straddling++;
        placed.push({ id: thing.id, kind, stratum: thing.stratum, name: thing.name, cells, bounds, key });
      }
    }
  }
  const meshFiles = knownFiles(
    [...keys.keys()].map((id) => pieces[id]),
    kits,
    kitLoads,
  );
  const numberOfFile = new Map(meshFiles.map(({ key }, i) => [key, i]));
  const order = [...tallies].sort(([, a], [, b]) => a.column - b.column || a.row - b.row);
  const numberOf = new Map(order.map(([key], i) => [key, i]));
  const cellNumber = (key: string | undefined): number =>
    key === undefined ? RESIDENT : (numberOf.get(key) as number);
  const things = placed
    .map(({ key, ...thing }): PlacedThing => ({ ...thing, cell: cellNumber(key) }))
    .sort((a, b) => b.cells - a.cells || (a.id < b.id ? -1 : 1));
  return {
    cells: order.map(([key, tally]): Cell => {
      const min: PlanPoint = [
        grid.origin[0] + tally.column * grid.sizeMetres,
        grid.origin[1] + tally.row * grid.sizeMetres,
      ];
      return {
        key,
        min,
        max: [min[0] + grid.sizeMetres, min[1] + grid.sizeMetres],
        straddling: tally.straddling,
        ...contents(tally, numberOfFile),
      };
    }),
    resident: contents(resident, numberOfFile),
    meshFiles,
    straddlers: things.filter(({ cell }) => cell !== RESIDENT),
    residentThings: things.filter(({ cell }) => cell === RESIDENT),
    cellOfThing: Object.fromEntries(cellKeyOfThing.map(([id, key]) => [id, cellNumber(key)])),
  };
}

/** The files with the meshes of some pieces, in order of their keys. @throws CoreError 'CELL_KIT_MISSING' */
function knownFiles(pieces: readonly Piece[], kits: CutInput['kits'], kitLoads: KitLoads): CutLevel['meshFiles'] {
  const files = new Map<string, CutLevel['meshFiles'][number]>();
  for (const piece of pieces) {
    const kit = kits[piece.kit]?.name ?? piece.kit;
    for (const { key, load } of meshFilesOf(piece, kitLoads)) {
      if (!load)
        throw new CoreError('CELL_KIT_MISSING', `cells: the files of this kit are not known: ${kit}`, {
          kit: piece.kit,
        });
      const { files: count, diskBytes, memoryBytes } = load;
      files.set(key, { key, name: key === piece.kit ? kit : piece.name, files: count, diskBytes, memoryBytes });
    }
  }
  return [...files.values()].sort((a, b) => (a.key < b.key ? -1 : 1));
}

function cellOf(grid: CellGrid, axis: number, value: number): number {
  return Math.floor((value - grid.origin[axis >> 1]) / grid.sizeMetres);
}

function newTally(placed: PlacedFiles | undefined): Tally {
  return {
    blocks: 0,
    placements: 0,
    triangles: 0,
    memoryBytes: 0,
    packed: new PackedBlocks(),
    columns: placed && new ColumnsBuilder(placed.form),
    straddling: 0,
    meshFiles: new Set(),
  };
}

/** What a thing is counted as. */
const COUNTERS: Readonly<Record<Thing['kind'], 'blocks' | 'placements'>> = { block: 'blocks', placement: 'placements' };

function add(tally: Tally, { kind, triangles, memoryBytes, packed, placement, meshFiles }: Thing): void {
  tally[COUNTERS[kind]]++;
  tally.triangles += triangles;
  tally.memoryBytes += memoryBytes;
  if (packed) tally.packed.add(packed.block, packed.surface);
  if (placement) tally.columns?.add(placement.at, placement.piece);
  for (const file of meshFiles) tally.meshFiles.add(file);
}

function contents(
  { blocks, placements, triangles, memoryBytes, packed, columns, meshFiles }: Tally,
  numberOfFile: ReadonlyMap<string, number>,
): CellContents {
  return {
    blocks,
    placements,
    triangles,
    memoryBytes,
    files: packed.files + (columns?.files ?? 0),
    diskBytes: packed.bytes + (columns?.files ? new ColumnsLayout(columns).bytes : 0),
    meshFiles: [...meshFiles].map((key) => numberOfFile.get(key) as number).sort((a, b) => a - b),
  };
}

function* thingsOf(
  one: StandingLevel['strata'][number],
  pieces: CutInput['pieces'],
  keysOf: (piece: Piece) => readonly string[],
): Generator<Thing> {
  const stratum = one.stratum.id;
  for (const block of one.content.block) {
    const surface = blockSurfaceIfAny(block);
    if (!surface) continue;
    const memoryBytes = blockBytes(surface);
    yield {
      id: block.id,
      kind: 'block',
      stratum,
      name: block.name || block.material,
      bounds: surface.bounds,
      triangles: surface.triangles,
      memoryBytes,
      packed: { surface, block },
      meshFiles: [],
    };
  }
  const of = placementsOf(one);
  const { count, ids, pieces: placed, numbers } = of;
  const box = new Float64Array(6);
  for (let i = 0; i < count; i++) {
    const piece = pieces[placed[i]];
    if (!piece)
      throw new CoreError(
        'CELL_PIECE_MISSING',
        `cells: the placement ${ids[i]} uses the piece ${placed[i]}, which does not exist`,
      );
    placedBounds(numbers, i, piece.bounds, box, 0);
    const bounds: Box3 = { min: [box[0], box[1], box[2]], max: [box[3], box[4], box[5]] };
    yield {
      id: ids[i],
      kind: 'placement',
      stratum,
      name: piece.name,
      bounds,
      triangles: piece.steps[0].triangles,
      memoryBytes: INSTANCE_BYTES,
      placement: { at: { of, i }, piece },
      meshFiles: keysOf(piece),
    };
  }
}
