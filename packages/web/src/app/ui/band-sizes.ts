/** How thick a band is at least, pixels: what costs nothing is there all the same. */
const LEAST_PIXELS = 1;

/** How thick the bands of a core are drawn, pixels, in their order. @param scale pixels of one unit of their values */
export function bandSizes(bands: readonly { readonly value: number }[], scale: number): number[] {
  return bands.map(({ value }) => Math.max(LEAST_PIXELS, value * scale));
}
