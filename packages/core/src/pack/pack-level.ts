import { strToU8 } from 'fflate';
import { RESIDENT, cutLevel, type CutLevel } from '../cells/cut-level';
import type { RunContext } from '../context/run-context';
import { canonicalJson } from '../formats/canonical-json';
import { writeGlb } from '../formats/glb/write-glb';
import { turnQuaternion } from '../geometry/turn-quaternion';
import { blockSurfaceIfAny } from '../geometry/block-solid';
import type { LevelContent } from '../layout/level-content';
import { bitmapOfMask } from '../layout/masks/mask-bitmap';
import { pictureOfMask } from '../layout/masks/mask-picture';
import { squaresOfRow } from '../layout/tiles/square-text';
import { placementBounds } from '../layout/placement-bounds';
import type { Block } from '../model/block';
import type { CellGrid } from '../model/cell-grid';
import type { Json } from '../model/json';
import type { Kit, Piece } from '../model/kit';
import type { Mask } from '../model/mask';
import type { Placement } from '../model/placement';
import { withSections } from '../sections/with-sections';
import { thingsOfPockets } from '../sight/pocket-things';
import type { SightResult } from '../sight/sight-result';
import { meshOfBlocks } from './block-meshes';
import { kitPackPath, type PackFile } from './pack-kit';

export interface PackLevelInput {
  readonly content: LevelContent;
  readonly pieces: Readonly<Record<string, Piece>>;
  readonly kits: Readonly<Record<string, Kit>>;
  /** How it is cut; null packs it as one. */
  readonly grid: CellGrid | null;
  readonly sight: SightResult;
  /** Number in order of play from 1; null for trial and tool levels. */
  readonly number: number | null;
  /** Names of the sets that it stands in, from the top. */
  readonly sets: readonly string[];
}

/** A part of a level that is loaded as one: all of it, what is resident, or a cell. */
interface Chunk {
  /** '' for what is always loaded. */
  readonly cell: string;
  readonly blocks: Block[];
  readonly placements: Placement[];
}

/**
 * The files of a level: what it is, its blocks as glTF a chunk, its placements, what is seen from where, and its cells.
 * Equal input gives equal bytes.
 * @throws CoreError 'CELL_PIECE_MISSING' naming the placement, 'BURROW_SIZE', 'CANCELLED'
 */
export async function packLevel(input: PackLevelInput, context: RunContext): Promise<PackFile[]> {
  const { content } = withSections(input.content, context);
  const { level, strata } = content;
  const folder = `levels/${level.key}`;
  const grid = input.grid ?? wholeGrid(level.id);
  const cut = cutLevel({ content, pieces: input.pieces, kits: input.kits, grid }, context);
  const chunks = chunksOf(content, cut, input.grid === null);
  const files: PackFile[] = [];
  const describedChunks: Json[] = [];
  for (const chunk of chunks) {
    context.checkCancelled();
    const name = chunk.cell === '' ? 'resident' : `cell-${chunk.cell.replace(',', '-')}`;
    const meshes = meshOfBlocks(name, chunk.blocks);
    if (meshes) files.push({ path: `${folder}/${name}.glb`, bytes: await writeGlb(meshes) });
    describedChunks.push({
      cell: chunk.cell === '' ? null : chunk.cell,
      geometry: meshes ? `${folder}/${name}.glb` : null,
      kits: [...new Set(chunk.placements.map(({ piece }) => kitPackPath(input.kits[input.pieces[piece].kit])))].sort().map((path) => `${path}.json`),
      placements: chunk.placements.map(({ id, piece, position, turn, scale, values }) => ({
        id,
        piece,
        translation: [...position],
        rotation: turnQuaternion(turn),
        scale: [...scale],
        ...ownValues(values),
      })),
    });
  }
  context.progress(0.6, `${level.name}: what is seen`);
  files.push({ path: `${folder}/sight.json`, bytes: strToU8(JSON.stringify(sightOf(content, input))) });
  if (input.grid) files.push({ path: `${folder}/cells.json`, bytes: strToU8(canonicalJson(cellsOf(input.grid, cut))) });
  const masks = strata.flatMap(({ content: items }) => items.mask).map((mask, i) => packedMask(mask, `${folder}/mask-${i + 1}.png`));
  files.push(...masks.map(({ file }) => file));
  const markers = strata.flatMap(({ content: items }) => items.marker);
  const description = {
    format: 'stravel-pack-level',
    version: 1,
    id: level.id,
    key: level.key,
    name: level.name,
    number: input.number,
    sets: [...input.sets],
    purpose: level.purpose,
    code: level.code,
    values: level.values as Json,
    openSky: level.openSky,
    markers: markers.map(({ id, kind, position, turn, entry, values }) => ({
      id,
      kind,
      translation: [...position],
      rotation: turnQuaternion([turn, 0, 0]),
      ...(entry ? { entry } : {}),
      ...ownValues(values),
    })),
    ...happenings(content),
    ...(masks.length > 0 ? { masks: masks.map(({ described }) => described) } : {}),
    chunks: describedChunks,
    sight: `${folder}/sight.json`,
    cells: input.grid ? `${folder}/cells.json` : null,
  };
  files.push({ path: `${folder}.json`, bytes: strToU8(canonicalJson(description)) });
  return files;
}

/** What happens in a level and where one goes: volumes, links, paths and tile floors. Lists that are empty are left out. */
function happenings({ strata }: LevelContent): Record<string, Json> {
  const all = <T>(of: (content: LevelContent['strata'][number]['content']) => readonly T[]): readonly T[] => strata.flatMap(({ content }) => of(content));
  const lists: Record<string, Json[]> = {
    volumes: all(({ volume }) => volume).map(({ id, name, kind, position, turn, shape, values }) => ({
      id,
      name,
      kind,
      translation: [...position],
      rotation: turnQuaternion(turn),
      shape: shape as unknown as Json,
      ...ownValues(values),
    })),
    links: all(({ link }) => link) as unknown as Json[],
    paths: all(({ path }) => path).map(({ id, name, form, closed, knots }) => ({ id, name, form, closed, knots: knots as unknown as Json })),
    tileFloors: all(({ tileFloor }) => tileFloor).map(({ id, name, position, squareMetres, columns, rows, squares }) => ({
      id,
      name,
      position: [...position],
      squareMetres,
      squares: Array.from({ length: rows }, (_unused, row) => squaresOfRow(squares[String(row)], columns)),
    })),
  };
  return Object.fromEntries(Object.entries(lists).filter(([, list]) => list.length > 0));
}

/** A mask as a picture, white where it is open, with where it lies. */
function packedMask(mask: Mask, path: string): { readonly file: PackFile; readonly described: Json } {
  const { id, name, position, pixelsPerMetre } = mask;
  return { file: { path, bytes: pictureOfMask(bitmapOfMask(mask)) }, described: { id, name, position: [...position], pixelsPerMetre, picture: path } };
}

function ownValues(values: Placement['values']): Record<string, Json> {
  return values ? { values: values as unknown as Json } : {};
}

/** A grid with one cell, for a level that is not cut; what is too large for it is resident anyway. */
function wholeGrid(level: string): CellGrid {
  return { id: level, sizeMetres: 10000, origin: [-5000, -5000], loadMetres: 0, dropMetres: 0, readyMetres: 0, resident: [] };
}

function chunksOf({ strata }: LevelContent, cut: CutLevel, isOne: boolean): Chunk[] {
  const chunks = new Map<string, Chunk>([['', { cell: '', blocks: [], placements: [] }]]);
  const chunkOf = (id: string): Chunk => {
    const cell = cut.cellOfThing[id] ?? RESIDENT;
    const key = isOne || cell === RESIDENT ? '' : cut.cells[cell].key;
    const known = chunks.get(key) ?? { cell: key, blocks: [], placements: [] };
    chunks.set(key, known);
    return known;
  };
  for (const { content } of strata) {
    for (const block of content.block) chunkOf(block.id).blocks.push(block);
    for (const placement of content.placement) chunkOf(placement.id).placements.push(placement);
  }
  return [...chunks.values()].sort((a, b) => (a.cell < b.cell ? -1 : 1));
}

function cellsOf(grid: CellGrid, { cells }: CutLevel): Json {
  const { sizeMetres, origin, loadMetres, dropMetres, readyMetres } = grid;
  return {
    format: 'stravel-pack-cells',
    version: 1,
    sizeMetres,
    origin: [...origin],
    loadMetres,
    dropMetres,
    readyMetres,
    cells: cells.map(({ key, min, max, memoryBytes, triangles }) => ({ cell: key, min: [...min], max: [...max], memoryBytes, triangles })),
  };
}

/** Pockets that can be reached, what is seen from each, and which things touch each. */
function sightOf({ strata }: LevelContent, { sight, pieces }: PackLevelInput): Json {
  const ids: string[] = [];
  const bounds: number[] = [];
  for (const { content } of strata) {
    for (const block of content.block) {
      const box = blockSurfaceIfAny(block)?.bounds;
      if (!box) continue;
      ids.push(block.id);
      bounds.push(...box.min, ...box.max);
    }
    for (const placement of content.placement) {
      const box = placementBounds(placement, pieces[placement.piece].bounds);
      ids.push(placement.id);
      bounds.push(...box.min, ...box.max);
    }
  }
  const things = thingsOfPockets(sight.pockets, new Float64Array(bounds));
  return {
    format: 'stravel-pack-sight',
    version: 1,
    bounds: { min: [...sight.bounds.min], max: [...sight.bounds.max] },
    things: ids,
    pockets: sight.pockets.map(({ planes, bounds: box, reached }, i) => ({
      reached,
      planes: planes.map((plane) => [...plane]),
      bounds: { min: [...box.min], max: [...box.max] },
      visible: [...sight.visible[i]],
      things: things[i],
    })),
  };
}
