/** How thick a band is at least, pixels: what costs nothing is there all the same. */
const LEAST_PIXELS = 1;
/** Very many thin bands together take no more of the room. */
const MOST_SHARE = 0.25;

/**
 * How thick the bands of a core are drawn, pixels, in their order.
 * @param scale pixels of one unit of their values @param room pixels that there are for the core
 */
export function bandSizes(bands: readonly { readonly value: number }[], scale: number, room: number): number[] {
  const least = Math.min(LEAST_PIXELS, (room * MOST_SHARE) / bands.length);
  return bands.map(({ value }) => Math.max(least, value * scale));
}
