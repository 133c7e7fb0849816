import type { RunContext } from '../context/run-context';
import { boxPlanes } from '../geometry/block-solid';
import type { Block } from '../model/block';
import type { Marker } from '../model/marker';
import type { Pin } from '../model/pin';
import type { Recipe } from '../model/recipe';
import type { Vector3 } from '../model/vector';
import { OPEN, carveBurrow, type Burrow } from './carve-burrow';
import { wallRectangles, type SquareRectangle } from './wall-rectangles';

/** Raised whenever the same recipe would make another section. */
const SECTION_VERSION = 1;
/** Thickness of floor and ceiling, metres. */
const SLAB_METRES = 1;

/** What a recipe is made from. */
export interface SectionInput {
  readonly recipe: Recipe;
  readonly pins: readonly Pin[];
}

/** What was counted while it was made. */
export interface SectionFigures {
  readonly squares: number;
  readonly openSquares: number;
  readonly wantedSquares: number;
  readonly steps: number;
  readonly walkers: number;
  readonly stoppedShort: boolean;
  readonly walls: number;
}

/** What a recipe makes. */
export interface Section {
  readonly version: number;
  readonly recipe: string;
  readonly blocks: readonly Block[];
  readonly markers: readonly Marker[];
  readonly figures: SectionFigures;
}

/**
 * Makes the section of a recipe: walls beside the floor, a floor and a ceiling slab, a spawn and an exit. Squares of pinned
 * walls are open, so that what is behind them is walled off anew and the section stays closed.
 * @throws CoreError 'BURROW_SIZE', 'CANCELLED'
 */
export function makeSection({ recipe, pins }: SectionInput, context: RunContext): Section {
  const burrow = carveBurrow(recipe, context);
  const own = pins.filter((pin) => pin.recipe === recipe.id);
  const { border } = recipe;
  for (const pin of own) {
    for (let row = Math.max(border, pin.row); row < Math.min(recipe.rows - border, pin.row + pin.rows); row++) {
      const from = row * recipe.columns + Math.max(border, pin.column);
      const to = row * recipe.columns + Math.min(recipe.columns - border, pin.column + pin.columns);
      if (to > from) burrow.squares.fill(OPEN, from, to);
    }
  }
  const walls = wallRectangles(burrow.squares, recipe.columns, recipe.rows, () => context.checkCancelled());
  const blocks = [
    ...walls.map((rectangle) => wallBlock(recipe, `${recipe.id}.${rectangleKey(rectangle)}`, rectangle, [0, 0, 0])),
    ...own.filter(({ hidden }) => !hidden).map((pin) => wallBlock(recipe, pin.id, pin, pin.offset)),
    ...slabs(recipe, walls),
  ];
  return {
    version: SECTION_VERSION,
    recipe: recipe.id,
    blocks: blocks.sort((a, b) => (a.id < b.id ? -1 : 1)),
    markers: recipe.hasMarkers ? markersOf(recipe, burrow) : [],
    figures: {
      squares: burrow.squares.length,
      openSquares: burrow.squares.reduce((sum, value) => sum + (value === OPEN ? 1 : 0), 0),
      wantedSquares: burrow.wanted,
      steps: burrow.steps,
      walkers: burrow.walkers,
      stoppedShort: burrow.stoppedShort,
      walls: walls.length,
    },
  };
}

/** Names a wall by its place, so that a wall that two runs have in common has one name. */
function rectangleKey({ column, row, columns, rows }: SquareRectangle): string {
  return `c${column}r${row}w${columns}d${rows}`;
}

/** The squares of a wall block by its id, undefined for a slab or a pin. */
export function rectangleOfWall(recipe: string, blockId: string): SquareRectangle | undefined {
  const found = blockId.startsWith(`${recipe}.`) ? /^c(\d+)r(\d+)w(\d+)d(\d+)$/.exec(blockId.slice(recipe.length + 1)) : null;
  return found ? { column: Number(found[1]), row: Number(found[2]), columns: Number(found[3]), rows: Number(found[4]) } : undefined;
}

function wallBlock(recipe: Recipe, id: string, { column, row, columns, rows }: SquareRectangle, offset: Vector3): Block {
  const { position, squareMetres, heightMetres, material } = recipe;
  return {
    id,
    name: 'wall',
    position: [position[0] + (column + columns / 2) * squareMetres + offset[0], position[1] + offset[1], position[2] + (row + rows / 2) * squareMetres + offset[2]],
    turn: [0, 0, 0],
    planes: boxPlanes([columns * squareMetres, heightMetres, rows * squareMetres]),
    sight: 'hides',
    material,
  };
}

/** Floor and ceiling over all walls. */
function slabs(recipe: Recipe, walls: readonly SquareRectangle[]): Block[] {
  let [c0, r0, c1, r1] = [Infinity, Infinity, 0, 0];
  for (const { column, row, columns, rows } of walls) {
    c0 = Math.min(c0, column);
    r0 = Math.min(r0, row);
    c1 = Math.max(c1, column + columns);
    r1 = Math.max(r1, row + rows);
  }
  const { position, squareMetres, heightMetres, material } = recipe;
  const slab = (name: string, bottom: number): Block => ({
    id: `${recipe.id}.${name}`,
    name,
    position: [position[0] + ((c0 + c1) / 2) * squareMetres, position[1] + bottom, position[2] + ((r0 + r1) / 2) * squareMetres],
    turn: [0, 0, 0],
    planes: boxPlanes([(c1 - c0) * squareMetres, SLAB_METRES, (r1 - r0) * squareMetres]),
    sight: 'hides',
    material,
  });
  return [slab('floor', -SLAB_METRES), slab('ceiling', heightMetres)];
}

/** A spawn where the walk started, and an exit on the square that is the most steps away from it. */
function markersOf(recipe: Recipe, { squares, columns, start }: Burrow): Marker[] {
  const steps = new Int32Array(squares.length).fill(-1);
  const queue = new Int32Array(squares.length);
  queue[0] = start;
  steps[start] = 0;
  let farthest = start;
  for (let head = 0, tail = 1; head < tail; head++) {
    const at = queue[head];
    farthest = at;
    for (const next of [at + 1, at - 1, at + columns, at - columns]) {
      if (squares[next] !== OPEN || steps[next] >= 0) continue;
      steps[next] = steps[at] + 1;
      queue[tail++] = next;
    }
  }
  const place = (square: number): Vector3 => [
    recipe.position[0] + ((square % columns) + 0.5) * recipe.squareMetres,
    recipe.position[1],
    recipe.position[2] + (Math.floor(square / columns) + 0.5) * recipe.squareMetres,
  ];
  return [
    { id: `${recipe.id}.exit`, kind: 'exit', position: place(farthest), turn: 0 },
    { id: `${recipe.id}.spawn`, kind: 'spawn', position: place(start), turn: 0 },
  ];
}
