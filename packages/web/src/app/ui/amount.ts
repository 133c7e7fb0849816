const UNITS: readonly (readonly [number, string])[] = [
  [1e9, 'G'],
  [1e6, 'M'],
  [1e3, 'k'],
];

/** A count in three figures: 412 k, 1.52 M. */
export function countText(value: number): string {
  for (const [size, unit] of UNITS) {
    if (value >= size) return `${threeFigures(value / size)} ${unit}`;
  }
  return String(Math.round(value));
}

/** Bytes in decimal units: 96.0 MB. */
export function bytesText(value: number): string {
  const text = countText(value);
  return /[GMk]$/.test(text) ? `${text}B` : `${text} B`;
}

/** A time: 2.14 s, 85 ms. */
export function timeText(milliseconds: number): string {
  return milliseconds >= 1000 ? `${threeFigures(milliseconds / 1000)} s` : `${threeFigures(milliseconds)} ms`;
}

function threeFigures(value: number): string {
  return value >= 100 ? value.toFixed(0) : value >= 10 ? value.toFixed(1) : value.toFixed(2);
}
