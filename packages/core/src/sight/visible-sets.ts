import { cutWindow, newWindow, type Window } from './clip-window';
import { waysOfPockets, wayTarget, type OpeningTable, type Way } from './opening-polygons';
import { RoughBounds, type PocketBits } from './rough-bounds';
import { cutBySeparators } from './separators';

/** Every cutting plane moves outward by this much, metres, so that rounding never hides anything. */
const SLACK = 1e-4;
/** Openings closer than this are touching: no separating plane is drawn between them, metres. */
const TOUCHING = 1e-3;
/** Steps from one opening before the rough bounds are made: most openings are done sooner, and bounds cost more than that. */
const EASY_STEPS = 300;
/** An opening may take so many times its even share of the steps that are left. */
const GENEROUS = 8;
/** Steps that every opening has, however many were taken before. */
const FEWEST_STEPS = 24;
/** Longest chain of openings that is followed; longer ones fall back to the rough bound. */
const MAX_DEPTH = 400;

export interface VisibleSets {
  /** For each pocket the pockets that can be seen from it, ascending; empty when it was not asked for. */
  readonly visible: number[][];
  readonly steps: number;
  readonly limitedOpenings: number;
}

/** Steps before openings fall back to the rough bound: for one opening, and for all together. */
export interface StepLimits {
  readonly one: number;
  readonly all: number;
}

/** Room for one level of the recursion. */
interface Frame {
  readonly target: Window;
  readonly targetA: Window;
  readonly targetB: Window;
  readonly source: Window;
  readonly sourceA: Window;
  readonly sourceB: Window;
  readonly sourceOut: Window;
  readonly targetOut: Window;
  /** Pockets that the chain up to here may still come to. */
  readonly might: PocketBits;
}

/**
 * What can be seen from each pocket: a flow through openings, depth first. A chain of openings is followed while some
 * straight line may pass all of it; lines are bounded by the planes that separate the first opening from the last, cut
 * both ways. Seeing is mutual, so a pair stands only when both directions find it. Conservative: what can be seen is never
 * missing.
 *
 * Sources: Teller and Séquin 1991; Teller, Visibility computations in densely occluded polyhedral environments, 1992,
 * chapter 4 (the flow and its bounds).
 * What was tried: with the rough bounds of every opening the flow takes 0.85 s on 20 by 20 rooms, a third of it for the bounds
 * alone; without any 0.5 s, but an open yard of 66 pockets did not end in 15 s. So they are made only where they are needed.
 *
 * @param reached which pockets are asked for @param check called now and then, may throw to cancel
 */
export function visibleSets(
  openings: OpeningTable,
  pocketCount: number,
  reached: Uint8Array,
  limits: StepLimits,
  check: () => void,
  progress: (fraction: number) => void,
): VisibleSets {
  const ways = waysOfPockets(openings, pocketCount);
  for (const list of ways)
    list.sort((a, b) => openings.balls[(b >> 1) * 4 + 3] - openings.balls[(a >> 1) * 4 + 3] || a - b);
  const flow = new Flow(openings, ways, pocketCount, check);
  let waysLeft = ways.reduce((sum, list, pocket) => sum + (reached[pocket] ? list.length : 0), 0);
  const words = (pocketCount + 31) >> 5;
  const seenFrom: PocketBits[] = [];
  let limitedOpenings = 0;
  // A pocket that did not find this one is no longer looked for.
  const settledFor = (pocket: number): PocketBits => {
    const settled = new Uint32Array(words);
    for (let other = 0; other < pocket; other++) if (!has(seenFrom[other], pocket)) mark(settled, other);
    return settled;
  };
  for (let pocket = 0; pocket < pocketCount; pocket++) {
    const seen = new Uint32Array(words);
    seenFrom.push(seen);
    if (!reached[pocket]) continue;
    mark(seen, pocket);
    for (const way of ways[pocket]) {
      check();
      // A few hard openings may take more than their share of what is left.
      const share = Math.floor(((limits.all - flow.steps) * GENEROUS) / waysLeft--);
      if (flow.follow(pocket, way, seen, Math.min(limits.one, Math.max(FEWEST_STEPS, share)), settledFor)) continue;
      limitedOpenings++;
      const rough = flow.rough.of(way);
      for (let w = 0; w < words; w++) seen[w] |= rough[w];
    }
    if (pocket % 16 === 0) progress(pocket / pocketCount);
  }
  const visible = seenFrom.map((seen, a) => {
    const list: number[] = [];
    if (!reached[a]) return list;
    for (let b = 0; b < pocketCount; b++) if (has(seen, b) && has(seenFrom[b], a)) list.push(b);
    return list;
  });
  return { visible, steps: flow.steps, limitedOpenings };
}

function mark(bits: PocketBits, pocket: number): void {
  bits[pocket >> 5] |= 1 << (pocket & 31);
}

function has(bits: PocketBits, pocket: number): boolean {
  return (bits[pocket >> 5] & (1 << (pocket & 31))) !== 0;
}

class Flow {
  steps = 0;
  private budget = 0;
  private readonly frames: Frame[] = [];
  private readonly onChain: Uint8Array;
  private readonly polygons: Window[];
  private readonly words: number;
  readonly rough: RoughBounds;
  private sourceWay: Way = 0;
  /** Pockets that need not be found. */
  private settled: PocketBits = new Uint32Array(0);

  constructor(
    private readonly openings: OpeningTable,
    private readonly ways: readonly (readonly Way[])[],
    pocketCount: number,
    private readonly check: () => void,
  ) {
    this.onChain = new Uint8Array(pocketCount);
    this.words = (pocketCount + 31) >> 5;
    this.rough = new RoughBounds(openings, ways, pocketCount);
    this.polygons = Array.from({ length: openings.count }, (_unused, o) => {
      const corners = openings.corners.subarray(openings.starts[o], openings.starts[o + 1]);
      return { corners, count: corners.length / 3 };
    });
  }

  /** Marks what is seen through one way out of a pocket. False when the step limit ended it early. */
  follow(
    from: number,
    way: Way,
    seen: PocketBits,
    stepLimit: number,
    settledFor: (pocket: number) => PocketBits,
  ): boolean {
    this.sourceWay = way;
    this.onChain[from] = 1;
    const into = wayTarget(this.openings, way);
    this.budget = Math.min(EASY_STEPS, stepLimit);
    let whole = this.enter(into, way, this.polygons[way >> 1], undefined, 0, undefined, seen);
    if (!whole && stepLimit > EASY_STEPS) {
      this.budget = stepLimit;
      this.settled = settledFor(from);
      whole = this.enter(into, way, this.polygons[way >> 1], undefined, 0, this.rough.of(way), seen);
    }
    this.onChain[from] = 0;
    return whole;
  }

  /**
   * `pass` is undefined in the first pocket, where every line from the source is free; `might` while no bounds are asked for.
   */
  private enter(
    pocket: number,
    last: Way,
    source: Window,
    pass: Window | undefined,
    depth: number,
    might: PocketBits | undefined,
    seen: PocketBits,
  ): boolean {
    mark(seen, pocket);
    if (depth >= MAX_DEPTH) return false;
    this.onChain[pocket] = 1;
    const frame = (this.frames[depth] ??= newFrame(this.words));
    const clear = pass !== undefined && this.areApart(source, last, pass);
    for (const next of this.ways[pocket]) {
      const into = wayTarget(this.openings, next);
      if (this.onChain[into] || this.openings.planeNumbers[next >> 1] === this.openings.planeNumbers[last >> 1])
        continue;
      if (this.isBehind(next, this.sourceWay) || (pass && this.isBehind(next, last))) continue;
      if (might && !this.mayAdd(might, next, seen, frame.might)) continue;
      if ((++this.steps & 15) === 0) this.check();
      if (--this.budget < 0) {
        this.onChain[pocket] = 0;
        return false;
      }
      const bounded = this.bound(frame, next, last, source, pass, clear);
      if (!bounded) continue;
      if (!this.enter(into, next, frame.sourceOut, frame.targetOut, depth + 1, might && frame.might, seen)) {
        this.onChain[pocket] = 0;
        return false;
      }
    }
    this.onChain[pocket] = 0;
    return true;
  }

  /** Whether anything beyond a way is not seen yet; `into` becomes what the chain may still come to. */
  private mayAdd(might: PocketBits, way: Way, seen: PocketBits, into: PocketBits): boolean {
    const rough = this.rough.of(way);
    const { settled } = this;
    let fresh = 0;
    for (let w = 0; w < this.words; w++) {
      into[w] = might[w] & rough[w];
      fresh |= into[w] & ~(seen[w] | settled[w]);
    }
    return fresh !== 0;
  }

  /** Cuts the next opening and the source to what lines through the chain can use; false when none is left. */
  private bound(frame: Frame, next: Way, last: Way, source: Window, pass: Window | undefined, clear: boolean): boolean {
    let target: Window | undefined = this.cutByWay(this.polygons[next >> 1], frame.target, this.sourceWay, 1);
    if (!target) return false;
    if (pass) {
      target = this.cutByWay(target, target === frame.target ? frame.targetA : frame.target, last, 1);
      if (!target) return false;
    }
    let from = this.cutByWay(source, frame.source, next, -1);
    if (!from) return false;
    if (pass && clear) {
      target = cutBySeparators(
        from,
        pass,
        target,
        [frame.targetA === target ? frame.target : frame.targetA, frame.targetB],
        SLACK,
      );
      if (!target) return false;
      from = cutBySeparators(target, pass, from, [frame.sourceA, frame.sourceB], SLACK);
      if (!from) return false;
    }
    copyWindow(target, frame.targetOut);
    copyWindow(from, frame.sourceOut);
    return true;
  }

  /** Cuts a window to the front (1) or the back (−1) of a way's plane. */
  private cutByWay(window: Window, into: Window, way: Way, side: 1 | -1): Window | undefined {
    const at = (way >> 1) * 4;
    const p = this.openings.planes;
    const sign = way & 1 ? -side : side;
    return cutWindow(window, into, p[at] * sign, p[at + 1] * sign, p[at + 2] * sign, p[at + 3] * sign, SLACK);
  }

  /** Whether an opening lies wholly behind a way's plane, by its ball. */
  private isBehind(next: Way, way: Way): boolean {
    const at = (way >> 1) * 4;
    const ball = (next >> 1) * 4;
    const p = this.openings.planes;
    const b = this.openings.balls;
    const s = p[at] * b[ball] + p[at + 1] * b[ball + 1] + p[at + 2] * b[ball + 2] - p[at + 3];
    return (way & 1 ? -s : s) < -b[ball + 3] - SLACK;
  }

  /** Whether every point of the source is clear of the pass, by the planes of either. */
  private areApart(source: Window, last: Way, pass: Window): boolean {
    return this.leastDistance(source, last, -1) > TOUCHING || this.leastDistance(pass, this.sourceWay, 1) > TOUCHING;
  }

  private leastDistance(window: Window, way: Way, side: 1 | -1): number {
    const at = (way >> 1) * 4;
    const p = this.openings.planes;
    const sign = way & 1 ? -side : side;
    let least = Infinity;
    for (let i = 0, k = 0; i < window.count; i++, k += 3) {
      const c = window.corners;
      least = Math.min(least, sign * (c[k] * p[at] + c[k + 1] * p[at + 1] + c[k + 2] * p[at + 2] - p[at + 3]));
    }
    return least;
  }
}

function newFrame(words: number): Frame {
  return {
    target: newWindow(),
    targetA: newWindow(),
    targetB: newWindow(),
    source: newWindow(),
    sourceA: newWindow(),
    sourceB: newWindow(),
    sourceOut: newWindow(),
    targetOut: newWindow(),
    might: new Uint32Array(words),
  };
}

function copyWindow(from: Window, into: Window): void {
  into.count = from.count;
  for (let i = 0; i < from.count * 3; i++) into.corners[i] = from.corners[i];
}
