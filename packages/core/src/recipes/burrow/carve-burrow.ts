import type { RunContext } from '../../context/run-context';
import { CoreError } from '../../errors';
import type { BurrowRecipe } from '../../model/recipe';
import { randomStream } from '../../random/random-stream';

/** What the walk reads of a recipe. */
export type BurrowOptions = Pick<
  BurrowRecipe,
  'columns' | 'rows' | 'openShare' | 'birthChance' | 'mostWalkers' | 'border' | 'stepLimit' | 'seed'
>;

/** Most squares of one burrow. */
export const MAX_SQUARES = 4000000;
/** Steps that a walker takes in one turn: as many directions as one random word holds. */
const TURN_STEPS = 16;
/** Directions drawn at a time: a call for each word costs more than a turn. */
const WORDS = 1024;
/** Turns between two looks at the cancel flag. */
const CHECK_TURNS = 4096;

export const SOLID = 0;
export const OPEN = 1;
/** Holds the walk inside while it runs; solid afterwards. */
const EDGE = 2;

/** What a burrow carved. */
export interface Cave {
  readonly columns: number;
  readonly rows: number;
  /** SOLID or OPEN, row by row. */
  readonly squares: Uint8Array;
  readonly open: number;
  /** Open squares that were asked for. */
  readonly wanted: number;
  readonly steps: number;
  readonly walkers: number;
  /** Square in which the walk started. */
  readonly start: number;
  /** True when the step limit ended it before enough was open. */
  readonly stoppedShort: boolean;
}

/**
 * Carves a cave by walkers that go at random, one turn of 16 steps each, round and round. A walker that would enter the
 * border stays where it is. At the end of a turn it may split in two.
 * @throws CoreError 'BURROW_SIZE' when nothing lies inside the border or there are too many squares, 'CANCELLED'
 * Cost: O(steps), one byte a square. Tried: one step at a time with a branch for a square that is solid, 1.5 to 2 times slower, as neither
 * the edge nor what is open can be foreseen.
 * Source: the drunkard's walk, as in Shaker, Togelius, Nelson, Procedural Content Generation in Games, 2016, chapter 3 (there with one digger).
 */
export function carveBurrow(options: BurrowOptions, context: RunContext): Cave {
  const { columns, rows, border, openShare, birthChance, mostWalkers, stepLimit } = options;
  if (columns * rows > MAX_SQUARES)
    throw new CoreError(
      'BURROW_SIZE',
      `burrow: takes at most ${MAX_SQUARES} squares, ${columns} by ${rows} are ${columns * rows}`,
    );
  const inside = Math.max(0, columns - 2 * border) * Math.max(0, rows - 2 * border);
  if (!(border >= 1) || inside === 0)
    throw new CoreError(
      'BURROW_SIZE',
      `burrow: a border of ${border} leaves nothing inside ${columns} by ${rows} squares`,
    );
  const squares = new Uint8Array(columns * rows).fill(EDGE);
  for (let row = border; row < rows - border; row++)
    squares.fill(SOLID, row * columns + border, (row + 1) * columns - border);
  const wanted = Math.min(inside, Math.max(1, Math.round(inside * openShare)));
  const directions = randomStream(`burrow ${options.seed}`);
  const births = randomStream(`burrow births ${options.seed}`);
  const words = new Int32Array(WORDS);
  let used = WORDS;
  const start = (rows >> 1) * columns + (columns >> 1);
  const offsets = Int32Array.of(1, -1, columns, -columns);
  const ways = wayTable(offsets);
  const rowsASquare = 1 / columns;
  const walkers = new Int32Array(mostWalkers).fill(start);
  let count = 1;
  let open = 1;
  let steps = 0;
  squares[start] = OPEN;
  for (let turn = 0, next = 0; open < wanted && steps < stepLimit; turn++) {
    if (turn % CHECK_TURNS === 0) {
      context.checkCancelled();
      context.progress(Math.max(open / wanted, steps / stepLimit), 'walking');
    }
    if (used === WORDS) {
      directions.fill(words);
      used = 0;
    }
    let word = words[used++];
    let at = walkers[next];
    // Off by one where a column ends or begins, which is at the edge either way.
    const row = (at * rowsASquare) | 0;
    const column = at - row * columns;
    const toEdge = Math.min(column, row, columns - 1 - column, rows - 1 - row) - border;
    if (toEdge >= TURN_STEPS && wanted - open > TURN_STEPS && stepLimit - steps > TURN_STEPS) {
      // Nothing can hold or end this turn: four steps at a time, and no branch hangs on what was open.
      let known = 0;
      for (let k = 0; k < TURN_STEPS; k += 4) {
        const way = (word & 255) << 2;
        word >>= 8;
        const a = (at + ways[way]) | 0;
        const b = (at + ways[way + 1]) | 0;
        const c = (at + ways[way + 2]) | 0;
        at = (at + ways[way + 3]) | 0;
        known += squares[a];
        squares[a] = OPEN;
        known += squares[b];
        squares[b] = OPEN;
        known += squares[c];
        squares[c] = OPEN;
        known += squares[at];
        squares[at] = OPEN;
      }
      open += TURN_STEPS - known;
      steps += TURN_STEPS;
    } else {
      for (let k = 0; k < TURN_STEPS && steps < stepLimit && open < wanted; k++) {
        steps++;
        const to = at + offsets[word & 3];
        word >>= 2;
        if (squares[to] === EDGE) continue;
        at = to;
        if (squares[to] === SOLID) open++;
        squares[to] = OPEN;
      }
    }
    walkers[next] = at;
    if (count < mostWalkers && births.next() < birthChance) walkers[count++] = at;
    next = next + 1 < count ? next + 1 : 0;
  }
  clearEdge(squares, columns, rows, border);
  return { columns, rows, squares, open, wanted, steps, walkers: count, start, stoppedShort: open < wanted };
}

/** Where a walker is after each of four steps, for every byte of directions. */
function wayTable(offsets: Int32Array): Int32Array {
  const table = new Int32Array(256 * 4);
  for (let byte = 0; byte < 256; byte++) {
    for (let k = 0, offset = 0; k < 4; k++) {
      offset += offsets[(byte >> (2 * k)) & 3];
      table[byte * 4 + k] = offset;
    }
  }
  return table;
}

function clearEdge(squares: Uint8Array, columns: number, rows: number, border: number): void {
  squares.fill(SOLID, 0, border * columns);
  squares.fill(SOLID, (rows - border) * columns);
  for (let row = border; row < rows - border; row++) {
    squares.fill(SOLID, row * columns, row * columns + border);
    squares.fill(SOLID, (row + 1) * columns - border, (row + 1) * columns);
  }
}
