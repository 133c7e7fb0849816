import type { PieceStep } from '../model/kit';

/** How a chain is made. */
export interface ChainOptions {
  /** Coarser steps at most, 1 to 8. Default 5. */
  readonly steps: number;
  /** Triangles of a step as a share of those of the step before, above 0 and below 1. Default 0.5. */
  readonly ratio: number;
}

export const DEFAULT_CHAIN: ChainOptions = { steps: 5, ratio: 0.5 };

const LEAST_RATIO = 0.05;
const MOST_RATIO = 0.95;

/** What makes as many LODs as a piece has, at the mean ratio of these; undefined where it has none. @param steps full first */
export function chainLike(steps: readonly PieceStep[]): ChainOptions | undefined {
  const count = steps.length - 1;
  if (count < 1) return undefined;
  const ratio = steps.slice(1).reduce((sum, { triangles }, i) => sum + triangles / steps[i].triangles, 0) / count;
  return {
    steps: Math.min(8, count),
    ratio: Math.min(MOST_RATIO, Math.max(LEAST_RATIO, ratio || DEFAULT_CHAIN.ratio)),
  };
}
