import type { RunContext } from '../../context/run-context';
import { boxPlanes } from '../../geometry/block-solid';
import type { Block } from '../../model/block';
import type { Marker } from '../../model/marker';
import type { BurrowRecipe } from '../../model/recipe';
import type { Vector3 } from '../../model/vector';
import type { RecipeInputs } from '../recipe-spec';
import { carveBurrow } from './carve-burrow';
import { openPinned, squaresUnderPins } from './pinned-squares';
import { walkSquares, type SectionWalk } from './walk-squares';
import { wallRectangles, type SquareRectangle } from './wall-rectangles';

/** Raised whenever the same recipe would make another section. */
export const BURROW_VERSION = 2;
/** Thickness of floor and ceiling, metres. */
const SLAB_METRES = 1;

/** What was counted while it was made. */
export interface BurrowFigures {
  readonly squares: number;
  /** Squares that the walk opened, before pins. */
  readonly openSquares: number;
  readonly wantedSquares: number;
  /** Open squares whose middle is free and that cannot be walked to from the spawn, as pins cut the cave. */
  readonly unreachedSquares: number;
  /** Middle of the first of them, metres. */
  readonly unreachedAt: Vector3 | undefined;
  readonly steps: number;
  readonly walkers: number;
  readonly stoppedShort: boolean;
  readonly walls: number;
}

/** A cave with all that closes it. */
export interface Burrow {
  readonly version: number;
  readonly recipe: string;
  readonly blocks: readonly Block[];
  readonly markers: readonly Marker[];
  readonly figures: BurrowFigures;
}

/**
 * Makes the section of a recipe: walls beside the floor, a floor and a ceiling slab, a spawn and an exit. Squares of pinned
 * walls are open, so that what is behind them is walled off anew and the section stays closed; a square beyond the recipe's if need be.
 * @throws CoreError 'BURROW_SIZE', 'CANCELLED'
 */
export function makeBurrow({ recipe, pins }: RecipeInputs<'burrow'>, context: RunContext): Burrow {
  const cave = carveBurrow(recipe, context);
  const own = pins.filter((pin) => pin.recipe === recipe.id);
  const pinned = openPinned(cave, own);
  const { columns, margin } = pinned;
  const walls = wallRectangles(pinned.squares, columns, pinned.rows, () => context.checkCancelled()).map((wall) => ({
    ...wall,
    column: wall.column - margin,
    row: wall.row - margin,
  }));
  const middle = (square: number): Vector3 => [
    recipe.position[0] + ((square % columns) - margin + 0.5) * recipe.squareMetres,
    recipe.position[1],
    recipe.position[2] + (Math.floor(square / columns) - margin + 0.5) * recipe.squareMetres,
  ];
  const start = cave.start + margin * (columns + 1 + 2 * Math.floor(cave.start / cave.columns));
  const walk = walkSquares(pinned, squaresUnderPins(pinned, recipe, own), start);
  const planesOf = wallPlanes(recipe);
  const blocks = [
    ...walls.map((rectangle) =>
      wallBlock(recipe, `${recipe.id}.${rectangleKey(rectangle, recipe)}`, rectangle, [0, 0, 0], planesOf(rectangle)),
    ),
    ...own.filter(({ hidden }) => !hidden).map((pin) => wallBlock(recipe, pin.id, pin, pin.offset, planesOf(pin))),
    ...slabs(recipe, walls),
  ];
  return {
    version: BURROW_VERSION,
    recipe: recipe.id,
    blocks: blocks.sort((a, b) => (a.id < b.id ? -1 : 1)),
    markers: recipe.hasMarkers ? markersOf(recipe.id, walk, middle) : [],
    figures: {
      squares: cave.squares.length,
      openSquares: cave.open,
      wantedSquares: cave.wanted,
      unreachedSquares: walk.unreached.length,
      unreachedAt: walk.unreached.length > 0 ? middle(walk.unreached[0]) : undefined,
      steps: cave.steps,
      walkers: cave.walkers,
      stoppedShort: cave.stoppedShort,
      walls: walls.length,
    },
  };
}

/** Names a wall by its place, so that a wall that two runs have in common has one name. */
function rectangleKey({ column, row, columns, rows }: SquareRectangle, recipe: BurrowRecipe): string {
  const isBeyond = column < 0 || row < 0 || column + columns > recipe.columns || row + rows > recipe.rows;
  return isBeyond ? `rim-c${column + 1}r${row + 1}w${columns}d${rows}` : `c${column}r${row}w${columns}d${rows}`;
}

/** The squares of a wall block by its id; undefined for a slab, a pin, or a wall that reaches beyond the recipe's squares. */
export function rectangleOfWall(recipe: string, blockId: string): SquareRectangle | undefined {
  const found = blockId.startsWith(`${recipe}.`)
    ? /^c(\d+)r(\d+)w(\d+)d(\d+)$/.exec(blockId.slice(recipe.length + 1))
    : null;
  return found
    ? { column: Number(found[1]), row: Number(found[2]), columns: Number(found[3]), rows: Number(found[4]) }
    : undefined;
}

function wallBlock(
  recipe: BurrowRecipe,
  id: string,
  { column, row, columns, rows }: SquareRectangle,
  offset: Vector3,
  planes: Block['planes'],
): Block {
  const { position, squareMetres, material } = recipe;
  return {
    id,
    name: 'wall',
    position: [
      position[0] + (column + columns / 2) * squareMetres + offset[0],
      position[1] + offset[1],
      position[2] + (row + rows / 2) * squareMetres + offset[2],
    ],
    turn: [0, 0, 0],
    planes,
    sight: 'hides',
    material,
  };
}

/** The planes of walls; those of one size have them in common, as most walls are small. */
function wallPlanes({ squareMetres, heightMetres }: BurrowRecipe): (of: SquareRectangle) => Block['planes'] {
  const bySize = new Map<number, Map<number, Block['planes']>>();
  return ({ columns, rows }) => {
    const ofWidth = bySize.get(columns) ?? new Map<number, Block['planes']>();
    bySize.set(columns, ofWidth);
    let planes = ofWidth.get(rows);
    if (!planes) ofWidth.set(rows, (planes = boxPlanes([columns * squareMetres, heightMetres, rows * squareMetres])));
    return planes;
  };
}

/** Floor and ceiling over all walls. */
function slabs(recipe: BurrowRecipe, walls: readonly SquareRectangle[]): Block[] {
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
    position: [
      position[0] + ((c0 + c1) / 2) * squareMetres,
      position[1] + bottom,
      position[2] + ((r0 + r1) / 2) * squareMetres,
    ],
    turn: [0, 0, 0],
    planes: boxPlanes([(c1 - c0) * squareMetres, SLAB_METRES, (r1 - r0) * squareMetres]),
    sight: 'hides',
    material,
  });
  return [slab('floor', -SLAB_METRES), slab('ceiling', heightMetres)];
}

/** A spawn where the walk started or nearby, and an exit on the square that is the most steps away from it. */
function markersOf(recipe: string, { spawn, exit }: SectionWalk, middle: (square: number) => Vector3): Marker[] {
  if (spawn === undefined || exit === undefined) return [];
  return [
    { id: `${recipe}.exit`, kind: 'exit', position: middle(exit), turn: 0 },
    { id: `${recipe}.spawn`, kind: 'spawn', position: middle(spawn), turn: 0 },
  ];
}
