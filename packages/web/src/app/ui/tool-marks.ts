import type { MarkForm } from './mark';

const CORNERS = 'M3 7V3h4M13 3h4v4M17 13v4h-4M7 17H3v-4';

/** Drawn from what each tool makes. */
export const TOOL_MARKS = {
  select: { lines: CORNERS, filled: 'M7 7h6v6H7z' },
  block: { lines: 'M3 5h14v10H3zM3 11l6-6M5 15 15 5M11 15l6-6' },
  wall: { lines: 'M3 17V5.5h14V10M3 17h3.5V9H13.5v1M17 10h-3.5M17 17v-3.5h-3.5V17z' },
  piece: { lines: 'M4 16.5h12M6.5 16V9.5h7V16M10 2v5M7.8 5 10 7.2 12.2 5' },
  marker: { lines: 'M10 4l6 12H4z' },
  volume: { lines: CORNERS, filled: 'M9 9h2v2H9z' },
  path: { lines: 'M2.5 13h4v4h-4zM13.5 3h4v4h-4zM6.5 15c6 0 1-10 7-10' },
  tiles: { lines: 'M3 3h14v14H3zM3 7.7h14M3 12.3h14M7.7 3v14M12.3 3v14', filled: 'M7.7 7.7h4.6v4.6H7.7z' },
  mask: { lines: 'M3 3h14v14H3z', filled: 'M3 3h14v5h-5v4H8v5H3z' },
  region: { lines: 'M5 4h9l3 6-4 6.5H6L3 10z', dashes: '2.6 2' },
  rule: { lines: 'M2.5 13.5 13.5 2.5l4 4-11 11zM6 10l2 2M8.7 7.3l1.3 1.3M11.4 4.6l2 2' },
  stand: { lines: 'M10 3l5 5.5-5 5.5-5-5.5zM4 17.5h12' },
  divider: { lines: 'M3 16 17 5M6 9.5l2 2.6M10 6.4l2 2.6M14 3.2l2 2.6' },
  cells: { lines: 'M3 3h14v14H3zM10 3v14M3 10h14', filled: 'M10 3h7v7h-7z' },
} as const satisfies Readonly<Record<string, MarkForm>>;

export type ToolMarkName = keyof typeof TOOL_MARKS;
