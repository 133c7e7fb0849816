import { counted } from '@stravel/core';

export { bytesText, countText, timeText } from '@stravel/core';

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
