import type { Piece } from '@stravel/core';

/** What a thing is drawn by: its top and two sides. */
export interface BoxPaths {
  readonly top: string;
  readonly left: string;
  readonly right: string;
}

/** Two things on one ground. */
export const ASSEMBLY_PATHS: BoxPaths = { top: 'M-24 20H24', left: 'M-20 16V-16H-6V16Z', right: 'M6 16V-4H20V16Z' };

/** The box that a piece fills, seen from above its corner. */
export function boxPaths({ bounds }: Pick<Piece, 'bounds'>): BoxPaths {
  const size = [0, 1, 2].map((k) => bounds.max[k] - bounds.min[k]);
  const scale = 46 / Math.max((size[0] + size[2]) * 0.87, size[1] + (size[0] + size[2]) / 2);
  const [w, h, d] = size.map((s) => s * scale);
  const at = (x: number, y: number, z: number): string =>
    `${((x - z) * 0.87).toFixed(1)} ${(-y + (x + z) / 2 + h / 2 - (w + d) / 4).toFixed(1)}`;
  const face = (...points: string[]): string => `M${points.join('L')}Z`;
  return {
    top: face(at(0, h, 0), at(w, h, 0), at(w, h, d), at(0, h, d)),
    left: face(at(0, h, d), at(w, h, d), at(w, 0, d), at(0, 0, d)),
    right: face(at(w, h, 0), at(w, h, d), at(w, 0, d), at(w, 0, 0)),
  };
}
