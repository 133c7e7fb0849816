import type { TileNode } from './tile-graph';

/** Most squares of floors whose states are looked at in whole. */
const MAX_SQUARES = 4096;

/**
 * Tells states from which the goal can no longer be reached with everything visited, on floors whose squares mostly go.
 * Three necessary conditions, each linear in the squares: colours of a chessboard pattern come out even; every must has a
 * square to come from and another to leave for; nothing that must be visited lies behind a square that can be crossed once
 * only, unless the goal lies there too.
 * Source of the last: R. Tarjan, Depth-first search and linear graph algorithms, 1972 (articulation points).
 */
export class DeadStates {
  private readonly left: Float64Array;
  private readonly found: Int32Array;
  private readonly low: Int32Array;
  private readonly parent: Int32Array;
  private readonly edge: Int32Array;
  /** Of each square and what the walk found below it: unvisited musts, goals; branches that hold musts. */
  private readonly mustsBelow: Int32Array;
  private readonly goalsBelow: Int32Array;
  private readonly branches: Int32Array;
  private readonly stack: Int32Array;

  /**
   * @param back the nodes from which one may go to each
   * @param around those together with the nodes to which one may go
   * @param colours two for squares that lie around each other; undefined when two do not do
   */
  constructor(
    private readonly nodes: readonly TileNode[],
    private readonly back: readonly (readonly number[])[],
    private readonly around: readonly (readonly number[])[],
    private readonly colours: Uint8Array | undefined,
  ) {
    this.left = new Float64Array(nodes.length);
    const list = (): Int32Array => new Int32Array(nodes.length);
    [this.found, this.low, this.parent, this.edge] = [list(), list(), list(), list()];
    [this.mustsBelow, this.goalsBelow, this.branches, this.stack] = [list(), list(), list(), list()];
  }

  /** Whether looking at whole states pays: at least half of the squares go, and they are not too many. */
  static pays(nodes: readonly TileNode[]): boolean {
    return nodes.length <= MAX_SQUARES && nodes.filter(({ visits }) => visits > 0).length * 2 >= nodes.length;
  }

  /**
   * @param made visits made of a square; 0 for a must that was not visited
   * @returns true only when no way on from here fulfils all
   */
  isDead(at: number, made: (square: number) => number): boolean {
    const { nodes, left } = this;
    let musts = 0;
    for (let i = 0; i < nodes.length; i++) {
      const { visits, role } = nodes[i];
      const count = made(i);
      const isMust = role === 'must' && count === 0;
      if (isMust) musts++;
      this.mustsBelow[i] = isMust ? 1 : 0;
      left[i] = visits === 0 ? Infinity : visits - count;
    }
    if (musts === 0) return false;
    return this.isOdd(at) || this.isStuck(at) || this.isCutOff(at, musts);
  }

  /**
   * A way changes colour with every step, so that its visits of both colours differ by none or one, and its last is a goal:
   * musts of the other colour need as many visits of this one, those of this colour and a goal as many of the other.
   */
  private isOdd(at: number): boolean {
    const { colours, left } = this;
    if (!colours) return false;
    let [musts, most, othersMusts, othersMost] = [0, 0, 0, 0];
    for (let i = 0; i < left.length; i++) {
      let visits = left[i];
      if (visits === Infinity) {
        // Between two visits of what holds for ever lies one of a square beside it.
        visits = 1;
        for (const other of this.around[i]) visits += left[other];
      }
      if (colours[i] === colours[at]) {
        musts += this.mustsBelow[i];
        most += visits;
      } else {
        othersMusts += this.mustsBelow[i];
        othersMost += visits;
      }
    }
    return othersMusts > most || musts + 1 > othersMost;
  }

  /** A must without a square to come from and one to leave for; or two that both can only be entered from here. */
  private isStuck(at: number): boolean {
    const { nodes, back, left } = this;
    let needHere = 0;
    for (let i = 0; i < nodes.length; i++) {
      if (this.mustsBelow[i] === 0) continue;
      let entries = 0;
      let here = false;
      for (const from of back[i]) {
        if (from === at) here = true;
        else if (left[from] > 0) entries++;
      }
      if (entries === 0 && !here) return true;
      let exits = 0;
      for (const to of nodes[i].next) if (left[to] > 0) exits++;
      if (exits === 0) return true;
      if (left[i] !== 1) continue;
      // Entered once and left once: over one square alone only if that can be visited before and after.
      let others = 0;
      let twice = false;
      for (const other of this.around[i]) {
        if (other === at) continue;
        if (left[other] > 0) others++;
        if (left[other] > 1) twice = true;
      }
      if (left[at] > 0 || twice) continue;
      if (others + (here ? 1 : 0) < 2) return true;
      if (here && others < 2 && ++needHere > 1) return true;
    }
    return false;
  }

  /** A depth-first walk from here over what can still be entered, whichever way. */
  private isCutOff(at: number, musts: number): boolean {
    const { nodes, around, left, found, low, parent, edge, mustsBelow, goalsBelow, branches, stack } = this;
    found.fill(0);
    let clock = 1;
    let depth = 0;
    let seen = mustsBelow[at];
    const enter = (i: number, from: number): void => {
      found[i] = low[i] = clock++;
      parent[i] = from;
      edge[i] = 0;
      branches[i] = 0;
      goalsBelow[i] = nodes[i].role === 'goal' && left[i] > 0 ? 1 : 0;
      stack[depth++] = i;
    };
    enter(at, -1);
    while (depth > 0) {
      const i = stack[depth - 1];
      if (edge[i] < around[i].length) {
        const other = around[i][edge[i]++];
        if (found[other] > 0) {
          if (other !== parent[i]) low[i] = Math.min(low[i], found[other]);
        } else if (left[other] > 0) {
          seen += mustsBelow[other];
          enter(other, i);
        }
        continue;
      }
      depth--;
      const over = parent[i];
      if (over < 0) break;
      low[over] = Math.min(low[over], low[i]);
      // What hangs below a square that is crossed once only is entered once and never left again.
      const crossings = over === at ? left[over] : left[over] - 1;
      if (low[i] >= found[over] && crossings <= 0 && mustsBelow[i] > 0) {
        if (goalsBelow[i] === 0 || branches[over] > 0) return true;
        branches[over]++;
      }
      mustsBelow[over] += mustsBelow[i];
      goalsBelow[over] += goalsBelow[i];
    }
    return seen < musts || goalsBelow[at] === 0;
  }
}
