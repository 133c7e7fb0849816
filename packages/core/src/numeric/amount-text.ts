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

/** The unit that all figures of one column share. */
export interface ColumnUnit {
  readonly size: number;
  readonly name: string;
}

/** The unit in which a limit is read in up to four figures: that of its column. @param base unit of size 1, '' for counts */
export function columnUnit(limit: number, base: string): ColumnUnit {
  const [size, prefix] = UNITS.find(([one]) => limit >= one * 10) ?? [1, ''];
  return { size, name: prefix + base };
}

/** A figure without its unit: 655, 61.4, 0.33, 0; one that is there and would read as none is "< 0.01". */
export function textInUnit(value: number, { size }: ColumnUnit): string {
  const inUnit = value / size;
  if (inUnit > 0 && inUnit < 0.005) return '< 0.01';
  return value === 0 || Number.isInteger(inUnit) ? String(inUnit) : threeFigures(inUnit);
}
