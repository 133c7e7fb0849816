import { toMicro, type PlanPoint, type Vector3 } from '@stravel/core';
import type { PickItem } from '../../../plate/pick-item';
import type { SnapTarget } from '../store/layout-store';

/** A corner or pivot is taken from this near, an edge from a little nearer; pixels. */
const POINT_PIXELS = 10;
const EDGE_PIXELS = 7;

export interface SnapInput {
  readonly at: PlanPoint;
  readonly metresPerPixel: number;
  readonly targets: readonly SnapTarget[];
  readonly near: (x: number, z: number, reach: number) => readonly PickItem[];
  readonly facesOf: (item: PickItem) => readonly Float64Array[] | undefined;
  /** Where a thing is placed by. */
  readonly pivotOf: (item: PickItem) => Vector3 | undefined;
}

/** The point of the plan to which a pointer snaps: the nearest corner or pivot, else the nearest edge. */
export function snapPoint({ at, metresPerPixel, targets, near, facesOf, pivotOf }: SnapInput): PlanPoint | undefined {
  if (!targets.some((target) => target !== 'surfaces')) return undefined;
  const reach = POINT_PIXELS * metresPerPixel;
  const points = new Nearest(at, reach);
  const edges = new Nearest(at, EDGE_PIXELS * metresPerPixel);
  for (const item of near(at[0], at[1], reach)) {
    const pivot = targets.includes('pivots') ? pivotOf(item) : undefined;
    if (pivot) points.offer(pivot[0], pivot[2]);
    if (!targets.includes('corners') && !targets.includes('edges')) continue;
    for (const face of facesOf(item) ?? []) {
      for (let i = 0; i < face.length; i += 3) {
        if (targets.includes('corners')) points.offer(face[i], face[i + 2]);
        if (!targets.includes('edges')) continue;
        const j = (i + 3) % face.length;
        const [dx, dz] = [face[j] - face[i], face[j + 2] - face[i + 2]];
        const square = dx * dx + dz * dz;
        const t =
          square > 0 ? Math.min(1, Math.max(0, ((at[0] - face[i]) * dx + (at[1] - face[i + 2]) * dz) / square)) : 0;
        edges.offer(face[i] + t * dx, face[i + 2] + t * dz);
      }
    }
  }
  return points.found ?? edges.found;
}

/** The nearest of the points that are offered, within a reach. */
class Nearest {
  found: PlanPoint | undefined;
  constructor(
    private readonly at: PlanPoint,
    private reach: number,
  ) {}

  offer(x: number, z: number): void {
    const away = Math.hypot(x - this.at[0], z - this.at[1]);
    if (away > this.reach || (away === this.reach && this.found)) return;
    this.reach = away;
    this.found = [toMicro(x), toMicro(z)];
  }
}
