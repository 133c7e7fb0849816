/** Beyond this many robust deviations from the median a value stands out. */
const FAR_DEVIATIONS = 3.5;
/** What makes the median of absolute deviations agree with the standard deviation where values are normal. */
const NORMAL_SCALE = 0.6745;

/**
 * Which values stand out from the rest: those whose modified z-score is above 3.5. Where more than half are equal, the mean
 * absolute deviation takes the place of the median one.
 * @param values NaN where there is none
 * @returns indices, rising; none with fewer than five values
 * Source: Iglewicz and Hoaglin, How to Detect and Handle Outliers, 1993, section 3.
 */
export function outliers(values: readonly number[]): number[] {
  const known = values.filter(Number.isFinite);
  if (known.length < 5) return [];
  const middle = median(known);
  const deviations = known.map((value) => Math.abs(value - middle));
  const typical = median(deviations);
  // The factor for the mean absolute deviation is the one of the source's note.
  const unit =
    typical > 0
      ? typical / NORMAL_SCALE
      : 1.253314 * (deviations.reduce((sum, value) => sum + value, 0) / deviations.length);
  if (!(unit > 0)) return [];
  return values.flatMap((value, i) =>
    Number.isFinite(value) && Math.abs(value - middle) / unit > FAR_DEVIATIONS ? [i] : [],
  );
}

function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const half = sorted.length >> 1;
  return sorted.length % 2 === 1 ? sorted[half] : (sorted[half - 1] + sorted[half]) / 2;
}
