/** sRGB to linear, 0 to 1, by a fit with an error below 0.002; exact powers differ between engines. */
export function linearColour(value: number): number {
  const v = Math.min(1, Math.max(0, value));
  return v * (v * (v * 0.305306011 + 0.682171111) + 0.012522878);
}
