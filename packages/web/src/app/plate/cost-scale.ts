import type { PlateColours } from './plate-colours';

/** How costs are coloured: from 0, with a break at the limit. */
export interface CostScale {
  /** Undefined where nothing limits it. */
  readonly limit: number | undefined;
  /** The greatest cost: without a limit the scale ends there. */
  readonly most: number;
}

/** From so many times the limit on the colour stays the same. */
const FAR_OVER = 1.75;

/** What is over shows at once: up to the limit it goes from paper to kiln, above it is red, darker the more it is over. */
export function costColour(colours: PlateColours, { limit, most }: CostScale, cost: number): string {
  const mix = (to: string, from: string, share: number): string =>
    `color-mix(in srgb, ${to} ${(Math.min(1, Math.max(0, share)) * 100).toFixed(0)}%, ${from})`;
  if (limit !== undefined && cost > limit)
    return mix(colours.costFar, colours.costOver, (cost / Math.max(limit, Number.MIN_VALUE) - 1) / (FAR_OVER - 1));
  const end = limit ?? most;
  return mix(colours.costLimit, colours.costNone, end > 0 ? cost / end : 0);
}

/** Whether a cost is over its limit: ink is unreadable on its colour then. */
export function isOverLimit({ limit }: CostScale, cost: number): boolean {
  return limit !== undefined && cost > limit;
}
