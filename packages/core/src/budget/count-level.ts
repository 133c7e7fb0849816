import type { RunContext } from '../context/run-context';
import type { Finding } from '../findings';
import { DEFAULT_SIGHT_OPTIONS } from '../sight/sight-input';
import type { LevelLoad } from './cost-model';
import { countStrata, type StratumFigures } from './count-strata';
import type { FiguresInput } from './figures-scene';
import type { Thing } from './pocket-figures';

/** How many of what stand in a level, sections included. */
export interface Tally {
  /** By kind. */
  readonly markers: Readonly<Record<string, number>>;
  /** Placements by id of their piece. */
  readonly pieces: Readonly<Record<string, number>>;
  /** By sight. */
  readonly blocks: Readonly<Record<string, number>>;
}

/** What stands in a level, whatever is seen from where: needs no bake. */
export interface ContentCount {
  readonly strata: readonly StratumFigures[];
  readonly triangles: number;
  readonly things: number;
  readonly tally: Tally;
  /** No place in the level can show more than this: all content, at its nearest detail step. */
  readonly bound: { readonly triangles: number; readonly drawCalls: number };
  /** What was found while the level's sections were made, and in how it is laid out. */
  readonly findings: readonly Finding[];
}

/** A level as it stands, with what a game loads for it. */
export interface LevelCount extends ContentCount {
  readonly load: LevelLoad;
}

/** Counts a level without its sight. @throws CoreError 'FIGURES_PIECE_MISSING' naming the placement, 'CANCELLED' */
export function countLevel(input: Omit<FiguresInput, 'sight'>, context: RunContext): ContentCount {
  return countOf(input, countStrata(input, context));
}

/** The count from strata that were counted already. */
export function countOf(
  input: Omit<FiguresInput, 'sight'>,
  { things, bounds, strata }: ReturnType<typeof countStrata>,
): ContentCount {
  return {
    strata,
    triangles: strata.reduce((sum, { triangles }) => sum + triangles, 0),
    things: things.filter(({ isPart }) => !isPart).length,
    tally: {
      markers: countBy(input.strata.flatMap(({ markers }) => markers.map(({ kind }) => kind))),
      pieces: countBy(input.strata.flatMap(({ placements }) => placements.pieces)),
      blocks: countBy(input.strata.flatMap(({ blocks }) => blocks.map(({ sight }) => sight))),
    },
    bound: {
      triangles: things.reduce((sum, { steps }) => sum + Math.max(...steps.map(({ triangles }) => triangles)), 0),
      drawCalls: mostDrawCalls(things, bounds),
    },
    findings: input.findings,
  };
}

/** A thing counts with a lattice cell that it comes this close to, metres. */
const TOUCH_METRES = 1e-2;
/** Most lattice cells of one block that are listed. */
const MAX_CELLS = 4096;

/** Draw calls when everything is in view: a piece once for each step that its placements can show at, blocks once a material and lattice cell. */
function mostDrawCalls(things: readonly Thing[], bounds: Float64Array): number {
  const placements = new Map<string, { count: number; steps: Thing['steps'] }>();
  const blocks = new Set<string>();
  let vast = 0;
  things.forEach(({ what, id, steps, mirrored }, i) => {
    if (what === 'piece') {
      const alike = mirrored ? `${id} mirrored` : id;
      const known = placements.get(alike) ?? { count: 0, steps };
      placements.set(alike, { ...known, count: known.count + 1 });
      return;
    }
    const cells = [0, 1, 2].map((k) => {
      const [low, high] = [bounds[i * 6 + k] - TOUCH_METRES, bounds[i * 6 + 3 + k] + TOUCH_METRES].map((at) =>
        Math.floor(at / DEFAULT_SIGHT_OPTIONS.latticeMetres),
      );
      return { low, count: high - low + 1 };
    });
    const [x, y, z] = cells;
    const count = x.count * y.count * z.count;
    // A block so vast is counted by itself: a little too many calls, and no list of all its cells.
    if (count > MAX_CELLS) vast += count;
    else
      for (let n = 0; n < count; n++)
        blocks.add(
          `${id}\u0000${x.low + (n % x.count)},${y.low + (Math.floor(n / x.count) % y.count)},${z.low + Math.floor(n / (x.count * y.count))}`,
        );
  });
  let calls = blocks.size + vast;
  for (const { count, steps } of placements.values()) {
    const materials = steps.map((step) => step.materials);
    calls += Math.min(
      materials.reduce((sum, one) => sum + one, 0),
      count * Math.max(...materials),
    );
  }
  return calls;
}

function countBy(names: readonly string[]): Record<string, number> {
  const counts = new Map<string, number>();
  for (const name of names) counts.set(name, (counts.get(name) ?? 0) + 1);
  return Object.fromEntries([...counts].sort(([a], [b]) => (a < b ? -1 : 1)));
}
