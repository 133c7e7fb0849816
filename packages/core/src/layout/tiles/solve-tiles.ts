import type { RunContext } from '../../context/run-context';
import { DeadStates } from './dead-states';
import type { TileGraph, TileNode } from './tile-graph';
import { twoColours } from './two-colours';

export interface SolveOptions {
  /** Most states that are looked at, from 1. */
  readonly stateLimit: number;
}
const DEFAULTS: SolveOptions = { stateLimit: 1000000 };

export const TILE_ANSWERS = ['reached', 'never', 'not decided'] as const;
export type TileAnswer = (typeof TILE_ANSWERS)[number];

export interface TileSolution {
  /** 'never' only when everything was searched. */
  readonly answer: TileAnswer;
  /** Nodes from start to goal; empty unless reached. It is the shortest. */
  readonly way: readonly number[];
  readonly states: number;
  /** Squares that lie on no way from start to goal. */
  readonly neverNeeded: readonly number[];
  /** Squares that one can only go into and come back from, or not come back from; a part of the above. */
  readonly deadEnds: readonly number[];
}

const FAR = 0xffffffff;
/** States between two looks at the cancel flag. */
const CHECK_STATES = 4096;

/**
 * Whether the goal of tile floors can be reached with all squares visited that must be, none more often than it holds.
 * Best-first by steps walked plus a bound on the steps that are left, so that the first way found is a shortest one. Where most squares go, states that can no longer come to an end are left out.
 * Source: P. Hart, N. Nilsson, B. Raphael, A formal basis for the heuristic determination of minimum cost paths, 1968.
 * @throws CoreError 'CANCELLED'
 * Cost: exponential in the squares that must be visited or go; hence the limit.
 */
export function solveTiles({ nodes }: TileGraph, options: Partial<SolveOptions>, context: RunContext): TileSolution {
  const { stateLimit } = { ...DEFAULTS, ...options };
  const start = nodes.findIndex(({ role }) => role === 'start');
  const goals = indicesOf(nodes, ({ role }) => role === 'goal');
  if (start < 0 || goals.length === 0)
    return { answer: 'never', way: [], states: 0, neverNeeded: nodes.map((_node, i) => i), deadEnds: [] };
  const back = reversed(nodes);
  const toGoal = distances(goals, (i) => back[i], nodes.length);
  const musts = indicesOf(nodes, ({ role }) => role === 'must');
  const { neverNeeded, deadEnds } = idleSquares(nodes, start, toGoal, back);
  const around = nodes.map(({ next }, i) => [...new Set([...next, ...back[i]])]);
  const colours = twoColours(around);
  const search = new Search(
    nodes,
    start,
    new Set(goals),
    toGoal,
    musts,
    musts.map((must) => distances([must], (i) => back[i], nodes.length)),
    colours,
    musts.length > 0 && DeadStates.pays(nodes) ? new DeadStates(nodes, back, around, colours) : undefined,
  );
  return { ...search.run(stateLimit, context), neverNeeded, deadEnds };
}

/** One state: where one stands, what is left of squares that go, what must still be visited. */
interface State {
  readonly at: number;
  /** Visits made of each limited square, then a mark for each visited must; one character each. */
  readonly made: string;
  readonly steps: number;
  readonly from: State | undefined;
}

class Search {
  /** Place of a square in `made`; −1 when it is neither limited nor a must. */
  private readonly slots: Int32Array;
  private readonly mustSlots: readonly number[];
  private readonly goalColours = new Set<number | undefined>();
  /** Buckets of states by steps plus bound. */
  private readonly open: State[][] = [];
  private readonly seen = new Set<string>();

  constructor(
    private readonly nodes: readonly TileNode[],
    private readonly start: number,
    private readonly goals: ReadonlySet<number>,
    private readonly toGoal: Uint32Array,
    private readonly musts: readonly number[],
    private readonly toMust: readonly Uint32Array[],
    /** Two for squares beside each other; undefined when two do not do. */
    private readonly colours: Uint8Array | undefined,
    private readonly dead: DeadStates | undefined,
  ) {
    for (const goal of goals) this.goalColours.add(colours?.[goal]);
    let slots = 0;
    // Where nothing must be visited, a shortest way comes to no square twice: nothing need be counted.
    const isCounted = ({ visits, role }: TileNode): boolean => role === 'must' || (musts.length > 0 && visits > 0);
    this.slots = Int32Array.from(nodes, (node) => (isCounted(node) ? slots++ : -1));
    this.mustSlots = musts.map((must) => this.slots[must]);
  }

  run(stateLimit: number, context: RunContext): Pick<TileSolution, 'answer' | 'way' | 'states'> {
    const none = '\u0000'.repeat(this.slots.reduce((most, slot) => Math.max(most, slot + 1), 0));
    this.offer({ at: this.start, made: this.visited(none, this.start), steps: 0, from: undefined });
    let states = 0;
    for (let bound = 0; bound < this.open.length; bound++) {
      for (let state = this.open[bound]?.pop(); state; state = this.open[bound].pop()) {
        const key = `${state.at} ${state.made}`;
        if (this.seen.has(key)) continue;
        this.seen.add(key);
        if (states % CHECK_STATES === 0) {
          context.checkCancelled();
          context.progress(Math.min(0.99, states / stateLimit), `${states} states`);
        }
        if (this.goals.has(state.at) && this.isDone(state.made))
          return { answer: 'reached', way: wayOf(state), states };
        if (states >= stateLimit) return { answer: 'not decided', way: [], states };
        states++;
        if (this.dead?.isDead(state.at, (square) => this.visitsMade(state.made, square))) continue;
        for (const next of this.nextOf(state))
          this.offer({ at: next, made: this.visited(state.made, next), steps: state.steps + 1, from: state });
      }
    }
    return { answer: 'never', way: [], states };
  }

  /** Where one may go, and last, so that it is looked at first, what has the fewest ways on. */
  private nextOf({ at, made }: State): readonly number[] {
    const next = this.nodes[at].next.filter((other) => this.holds(made, other));
    if (!this.dead) return next;
    const waysOn = (i: number): number => this.nodes[i].next.filter((other) => this.holds(made, other)).length;
    return next
      .map((i) => [i, waysOn(i)])
      .sort((a, b) => b[1] - a[1] || a[0] - b[0])
      .map(([i]) => i);
  }

  private visitsMade(made: string, square: number): number {
    return this.slots[square] < 0 ? 0 : made.charCodeAt(this.slots[square]);
  }

  private offer(state: State): void {
    const left = this.stepsLeft(state);
    if (left === FAR || this.seen.has(`${state.at} ${state.made}`)) return;
    const bound = state.steps + left;
    while (this.open.length <= bound) this.open.push([]);
    this.open[bound].push(state);
  }

  /** No way is shorter: over the farthest square that must still be visited, to the goal; nor than the steps that visit all. */
  private stepsLeft({ at, made }: State): number {
    const colour = this.colours?.[at];
    let least = this.toGoal[at];
    let musts = 0;
    let othersMusts = 0;
    for (let i = 0; i < this.musts.length && least !== FAR; i++) {
      if (made.charCodeAt(this.mustSlots[i]) > 0) continue;
      if (this.colours?.[this.musts[i]] === colour) musts++;
      else othersMusts++;
      const over = this.toMust[i][at];
      const on = this.toGoal[this.musts[i]];
      least = over === FAR || on === FAR ? FAR : Math.max(least, over + on);
    }
    return musts + othersMusts > 0 && least !== FAR
      ? Math.max(least, this.stepsToVisit(musts, othersMusts, colour))
      : least;
  }

  /** Least steps that visit so many squares of the colour one stands on and of the other, in turn, and then a goal. */
  private stepsToVisit(musts: number, othersMusts: number, colour: number | undefined): number {
    if (colour === undefined) return musts + othersMusts + 1;
    const onSame = this.goalColours.has(colour) ? 2 * Math.max(musts + 1, othersMusts) : FAR;
    const onOther = this.goalColours.has(3 - colour) ? 2 * Math.max(musts, othersMusts) + 1 : FAR;
    return Math.min(onSame, onOther);
  }

  private holds(made: string, at: number): boolean {
    const { visits } = this.nodes[at];
    return visits === 0 || this.slots[at] < 0 || this.visitsMade(made, at) < visits;
  }

  private visited(made: string, at: number): string {
    const slot = this.slots[at];
    if (slot < 0) return made;
    const { visits } = this.nodes[at];
    // What holds for ever is only ever visited or not.
    const count = visits === 0 ? 1 : Math.min(visits, made.charCodeAt(slot) + 1);
    return made.slice(0, slot) + String.fromCharCode(count) + made.slice(slot + 1);
  }

  private isDone(made: string): boolean {
    return this.mustSlots.every((slot) => made.charCodeAt(slot) > 0);
  }
}

/** Squares off every way, and those of them into which one can go. */
function idleSquares(
  nodes: readonly TileNode[],
  start: number,
  toGoal: Uint32Array,
  back: readonly (readonly number[])[],
): Pick<TileSolution, 'neverNeeded' | 'deadEnds'> {
  const fromStart = distances([start], (i) => nodes[i].next, nodes.length);
  const isOn = nodes.map((_node, i) => fromStart[i] !== FAR && toGoal[i] !== FAR);
  const deadEnds = new Set(indicesOf(nodes, (_node, i) => fromStart[i] !== FAR && toGoal[i] === FAR));
  // Leaves fall off one after the other: whoever goes in must come out by the one square that leads there.
  const waiting = nodes.map((_node, i) => i);
  for (let i = waiting.pop(); i !== undefined; i = waiting.pop()) {
    if (!isOn[i] || nodes[i].role !== 'none') continue;
    const around = new Set([...nodes[i].next, ...back[i]].filter((other) => isOn[other]));
    if (around.size > 1) continue;
    isOn[i] = false;
    deadEnds.add(i);
    waiting.push(...around);
  }
  return {
    neverNeeded: indicesOf(nodes, (node, i) => !isOn[i] && node.role === 'none'),
    deadEnds: [...deadEnds].filter((i) => nodes[i].role === 'none').sort((a, b) => a - b),
  };
}

/** Steps from the nearest of some nodes to each of `count`, FAR where there is no way. */
function distances(from: readonly number[], next: (i: number) => readonly number[], count: number): Uint32Array {
  const steps = new Uint32Array(count).fill(FAR);
  const queue = [...from];
  for (const i of from) steps[i] = 0;
  for (let head = 0; head < queue.length; head++) {
    for (const other of next(queue[head])) {
      if (steps[other] !== FAR) continue;
      steps[other] = steps[queue[head]] + 1;
      queue.push(other);
    }
  }
  return steps;
}

function reversed(nodes: readonly TileNode[]): number[][] {
  const back: number[][] = nodes.map(() => []);
  nodes.forEach(({ next }, i) => next.forEach((other) => back[other].push(i)));
  return back;
}

function indicesOf(nodes: readonly TileNode[], holds: (node: TileNode, i: number) => boolean): number[] {
  return nodes.flatMap((node, i) => (holds(node, i) ? [i] : []));
}

function wayOf(state: State): number[] {
  const way: number[] = [];
  for (let at: State | undefined = state; at; at = at.from) way.push(at.at);
  return way.reverse();
}
