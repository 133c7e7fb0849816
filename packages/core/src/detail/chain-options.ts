/** How a chain is made. */
export interface ChainOptions {
  /** Coarser steps at most, 1 to 8. Default 5. */
  readonly steps: number;
  /** Triangles of a step as a share of those of the step before, above 0 and below 1. Default 0.5. */
  readonly ratio: number;
}

export const DEFAULT_CHAIN: ChainOptions = { steps: 5, ratio: 0.5 };
