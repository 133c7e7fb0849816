import { pull, type Path } from '@stravel/core';
import type { KnotGrip } from '../../plan/plan-drawing';

/** More handles than this only hide the path. */
const MAX_HANDLES = 100;

/** What a path is drawn by on the plan: its knots, and of a smooth one the ends of their handles. */
export function knotGrips({ form, closed, knots }: Path): KnotGrip[] {
  const grips = knots.map(({ position }, index): KnotGrip => ({ index, end: 0, at: [position[0], position[2]] }));
  if (form !== 'curve' || knots.length > MAX_HANDLES) return grips;
  return grips.flatMap((grip) => {
    const [dx, , dz] = pull(knots, closed, grip.index);
    const [x, z] = grip.at;
    return [
      grip,
      { ...grip, end: 1 as const, at: [x + dx, z + dz] as const },
      { ...grip, end: -1 as const, at: [x - dx, z - dz] as const },
    ];
  });
}
