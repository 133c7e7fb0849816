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

/** A time in seconds, whatever its size, so that those of one series can be compared: 2.14 s, 0.09 s, 0 s. */
export function timeText(milliseconds: number): string {
  if (milliseconds === 0) return '0 s';
  return milliseconds < 5 ? '< 0.01 s' : `${threeFigures(milliseconds / 1000)} s`;
}

function threeFigures(value: number): string {
  return value >= 100 ? value.toFixed(0) : value >= 10 ? value.toFixed(1) : value.toFixed(2);
}
