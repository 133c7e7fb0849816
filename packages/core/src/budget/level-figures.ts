import type { RunContext } from '../context/run-context';
import { thingsOfPockets } from '../sight/pocket-things';
import { blocksNothing } from '../sight/sight-result';
import { countOf, type ContentCount } from './count-level';
import { countStrata } from './count-strata';
import type { FiguresInput } from './figures-scene';
import { countSeen, describePocket, pocketGroups, type PocketFigures, type SeenScene } from './pocket-figures';

/** Raised whenever the same input would give other figures. */
export const FIGURES_VERSION = 7;
/** Most pockets kept in the list of worst ones. */
const MAX_WORST = 20;

/** The figures of one level. What a device makes of them is computed when they are shown. */
export interface LevelFigures extends ContentCount {
  readonly version: number;
  /** Triangles seen all round from each pocket; 0 for pockets that are not reached. */
  readonly pocketTriangles: readonly number[];
  readonly pocketDrawCalls: readonly number[];
  /** Blocks and placements seen all round from each pocket. */
  readonly pocketThings: readonly number[];
  /** By triangles, most first. */
  readonly worst: readonly PocketFigures[];
  /** The pocket with most draw calls, null when there is none. */
  readonly worstDrawCalls: PocketFigures | null;
}

/** Figures without what is counted pocket by pocket. */
export type FiguresSummary = Omit<BakedFigures, 'pocketTriangles' | 'pocketDrawCalls' | 'pocketThings'>;

/** What a figures bake keeps. */
export interface BakedFigures extends LevelFigures {
  /** Bytes of the packed file of what is seen from where. */
  readonly sightFileBytes: number;
}

/**
 * Counts a level: what each stratum costs, and what would be drawn all round from every pocket (PRODUCT: worst pocket).
 * @throws CoreError 'FIGURES_PIECE_MISSING' naming the placement, 'CANCELLED'
 */
export function levelFigures(input: FiguresInput, context: RunContext): LevelFigures {
  const counted = countStrata(input, context);
  const { things, bounds } = counted;
  context.progress(0.3, 'assigning objects to pockets');
  context.checkCancelled();
  const { pockets, visible } = input.sight;
  const scene: SeenScene = {
    things,
    bounds,
    inPocket: blocksNothing(input.sight) ? [things.map((_, i) => i)] : thingsOfPockets(pockets, bounds),
    groups: pocketGroups(pockets.map(({ key }) => key)),
    pockets,
  };
  const pocketTriangles: number[] = [];
  const pocketDrawCalls: number[] = [];
  const pocketThings: number[] = [];
  const stamp = new Int32Array(things.length).fill(-1);
  visible.forEach((seen, pocket) => {
    if (pocket % 64 === 0) {
      context.checkCancelled();
      context.progress(0.4 + (0.6 * pocket) / visible.length, 'counting what is visible');
    }
    const count = countSeen(pocket, seen, scene, stamp);
    pocketTriangles.push(count.triangles);
    pocketDrawCalls.push(count.drawCalls);
    pocketThings.push(count.things);
  });
  const describe = (pocket: number): PocketFigures =>
    describePocket(
      pocket,
      visible[pocket],
      scene,
      input.strata.map(({ id }) => id),
      { things: pocketThings[pocket], triangles: pocketTriangles[pocket], drawCalls: pocketDrawCalls[pocket] },
    );
  const order = visible.flatMap((seen, pocket) => (seen.length > 0 ? [pocket] : []));
  const byTriangles = [...order].sort((a, b) => pocketTriangles[b] - pocketTriangles[a] || a - b);
  const byDrawCalls = [...order].sort((a, b) => pocketDrawCalls[b] - pocketDrawCalls[a] || a - b);
  return {
    ...countOf(input, counted),
    version: FIGURES_VERSION,
    pocketTriangles,
    pocketDrawCalls,
    pocketThings,
    worst: byTriangles.slice(0, MAX_WORST).map(describe),
    worstDrawCalls: byDrawCalls.length > 0 ? describe(byDrawCalls[0]) : null,
  };
}
