import { OPEN } from './carve-burrow';
import { BLOCKED, CLEAR, type PinnedSquares } from './pinned-squares';

/** Where play can go in a section, in steps between the middles of squares that share a side. */
export interface SectionWalk {
  /** Square to start in; undefined when a wall stands on the middle of every open one. */
  readonly spawn: number | undefined;
  /** Square that is the most steps away. */
  readonly exit: number | undefined;
  /** Open squares whose middle is free and that no step reaches from the spawn. */
  readonly unreached: readonly number[];
}

/**
 * Walks an open part from a start. The spawn is the start, or else the free square next to it by steps that may pass walls; squares that no
 * pinned wall touches go first, for the exit too.
 * @param under CLEAR, TOUCHED or BLOCKED for each square
 * Cost: O(squares).
 */
export function walkSquares({ squares, columns }: PinnedSquares, under: Uint8Array, start: number): SectionWalk {
  const isFree = (at: number): boolean => under[at] !== BLOCKED;
  const through = flood(squares, columns, start, undefined);
  const spawn = through.find((at) => under[at] === CLEAR) ?? through.find(isFree);
  if (spawn === undefined) return { spawn, exit: undefined, unreached: [] };
  const walked = flood(squares, columns, spawn, under);
  const reached = new Uint8Array(squares.length);
  let exit = spawn;
  for (const at of walked) {
    reached[at] = 1;
    if (under[at] === CLEAR) exit = at;
  }
  const unreached: number[] = [];
  for (let at = 0; at < squares.length; at++)
    if (squares[at] === OPEN && reached[at] === 0 && isFree(at)) unreached.push(at);
  return { spawn, exit, unreached };
}

/** Open squares in the order of their steps from a start; the outermost squares must be solid. @param under what no step enters where it is BLOCKED */
function flood(squares: Uint8Array, columns: number, start: number, under: Uint8Array | undefined): Int32Array {
  const seen = new Uint8Array(squares.length);
  const queue = new Int32Array(squares.length);
  let tail = 0;
  const reach = (square: number): void => {
    if (squares[square] !== OPEN || seen[square] === 1 || under?.[square] === BLOCKED) return;
    seen[square] = 1;
    queue[tail++] = square;
  };
  queue[tail++] = start;
  seen[start] = 1;
  for (let head = 0; head < tail; head++) {
    const at = queue[head];
    reach(at + 1);
    reach(at - 1);
    reach(at + columns);
    reach(at - columns);
  }
  return queue.subarray(0, tail);
}
