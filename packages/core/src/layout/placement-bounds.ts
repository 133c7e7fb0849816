import { turnMatrix, turnVector } from '../geometry/turn';
import type { Placement } from '../model/placement';
import type { Box3 } from '../model/vector';

/** Upright bounds of a placed piece, metres. */
export function placementBounds(placement: Pick<Placement, 'position' | 'turn' | 'scale'>, piece: Box3): Box3 {
  const m = turnMatrix(placement.turn);
  const half = [0, 1, 2].map((k) => ((piece.max[k] - piece.min[k]) / 2) * placement.scale[k]);
  const middle = [0, 1, 2].map((k) => ((piece.max[k] + piece.min[k]) / 2) * placement.scale[k]);
  const turned = turnVector(m, middle[0], middle[1], middle[2]);
  const reach = [0, 1, 2].map(
    (k) => Math.abs(m[k * 3]) * half[0] + Math.abs(m[k * 3 + 1]) * half[1] + Math.abs(m[k * 3 + 2]) * half[2],
  );
  const low = (k: number): number => placement.position[k] + turned[k] - reach[k];
  const high = (k: number): number => placement.position[k] + turned[k] + reach[k];
  return { min: [low(0), low(1), low(2)], max: [high(0), high(1), high(2)] };
}
