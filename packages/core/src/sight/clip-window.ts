/** A convex polygon in space while it is being cut: the first `count` xyz triples of `corners`. */
export interface Window {
  corners: Float64Array;
  count: number;
}

/** Most corners that a window may have; one that would have more is left uncut, which keeps too much, never too little. */
export const MAX_CORNERS = 48;

export function newWindow(): Window {
  return { corners: new Float64Array(MAX_CORNERS * 3), count: 0 };
}

const distances = new Float64Array(MAX_CORNERS);

/**
 * Cuts a window to where n·p − d ≥ −slack. Returns `from` itself when nothing is cut off, `into` when something is, and
 * undefined when nothing is left.
 */
export function cutWindow(
  from: Window,
  into: Window,
  nx: number,
  ny: number,
  nz: number,
  d: number,
  slack: number,
): Window | undefined {
  const n = from.count;
  const c = from.corners;
  let kept = 0;
  for (let i = 0, at = 0; i < n; i++, at += 3) {
    const s = c[at] * nx + c[at + 1] * ny + c[at + 2] * nz - d + slack;
    distances[i] = s;
    if (s >= 0) kept++;
  }
  if (kept === n) return from;
  if (kept === 0) return undefined;
  if (n + 1 > MAX_CORNERS) return from;
  const out = into.corners;
  let at = 0;
  for (let i = 0; i < n; i++) {
    const j = i + 1 === n ? 0 : i + 1;
    const si = distances[i];
    const sj = distances[j];
    if (si >= 0) {
      out[at++] = c[i * 3];
      out[at++] = c[i * 3 + 1];
      out[at++] = c[i * 3 + 2];
    }
    if (si >= 0 !== sj >= 0) {
      const t = si / (si - sj);
      out[at++] = c[i * 3] + (c[j * 3] - c[i * 3]) * t;
      out[at++] = c[i * 3 + 1] + (c[j * 3 + 1] - c[i * 3 + 1]) * t;
      out[at++] = c[i * 3 + 2] + (c[j * 3 + 2] - c[i * 3 + 2]) * t;
    }
  }
  into.count = at / 3;
  return into;
}
