import { counted } from '@stravel/core';
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

const MINUTE_MS = 60000;
const HOUR_MS = 60 * MINUTE_MS;
const DAY_MS = 24 * HOUR_MS;

/** How long ago a moment was: just now, 14 minutes ago, yesterday, 3 Mar 2027. */
export function agoText(moment: string, nowMs: number): string {
  const passed = nowMs - Date.parse(moment);
  const plural = (count: number, unit: string): string => `${counted(count, unit)} ago`;
  if (!Number.isFinite(passed)) return 'at an unknown time';
  if (passed < MINUTE_MS) return 'just now';
  if (passed < HOUR_MS) return plural(Math.floor(passed / MINUTE_MS), 'minute');
  if (passed < DAY_MS) return plural(Math.floor(passed / HOUR_MS), 'hour');
  if (passed < 2 * DAY_MS) return 'yesterday';
  if (passed < 30 * DAY_MS) return plural(Math.floor(passed / DAY_MS), 'day');
  return new Date(moment).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: 'numeric' });
}

/** A size on disk: 340 kB, 9.1 MB. */
export function sizeText(bytes: number): string {
  return bytes < 1e6
    ? `${Math.max(1, Math.round(bytes / 1000))} kB`
    : bytes < 1e9
      ? `${(bytes / 1e6).toFixed(1)} MB`
      : `${(bytes / 1e9).toFixed(2)} GB`;
}
