/**
 * Moves labels apart that would overlap, each as little above its place as it takes; the topmost push the others down
 * where there is no room above.
 * @param places of their middles from the bottom, ascending, pixels
 * @param spacing least distance of two middles, pixels
 * @param top highest middle, pixels
 */
export function spreadLabels(places: readonly number[], spacing: number, top: number): number[] {
  const spread: number[] = [];
  for (const place of places) spread.push(Math.max(place, (spread.at(-1) ?? -Infinity) + spacing));
  for (let i = spread.length - 1, limit = top; i >= 0; i--, limit -= spacing) spread[i] = Math.min(spread[i], limit);
  return spread;
}
