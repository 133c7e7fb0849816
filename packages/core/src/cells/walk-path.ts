import { CoreError } from '../errors';
import type { PlanPoint } from '../model/vector';

/** A path as it is walked. */
export interface WalkPath {
  readonly lengthMetres: number;
  /** Point at a distance from the start; clamped to the path. */
  at(metres: number): [number, number];
}

/** @throws CoreError 'REHEARSAL_PATH' when it has fewer than two knots or no length, 'REHEARSAL_KNOT' naming a knot that is not finite */
export function walkPath(knots: readonly PlanPoint[]): WalkPath {
  const bad = knots.findIndex(([x, z]) => !Number.isFinite(x) || !Number.isFinite(z));
  if (bad >= 0)
    throw new CoreError(
      'REHEARSAL_KNOT',
      `rehearsal: knot ${bad + 1} of the path is at ${knots[bad].join(', ')}, must be finite`,
    );
  const ends = new Float64Array(knots.length);
  for (let i = 1; i < knots.length; i++) {
    const dx = knots[i][0] - knots[i - 1][0];
    const dz = knots[i][1] - knots[i - 1][1];
    ends[i] = ends[i - 1] + Math.sqrt(dx * dx + dz * dz);
  }
  const lengthMetres = ends.at(-1) ?? 0;
  if (!(lengthMetres > 0)) {
    throw new CoreError(
      'REHEARSAL_PATH',
      `rehearsal: the path has no length, its ${knots.length} knots must be at least 2 and apart; draw one on the plan`,
    );
  }
  let leg = 1;
  return {
    lengthMetres,
    at: (metres) => {
      const wanted = Math.min(lengthMetres, Math.max(0, metres));
      // Walks go forward: the leg last used is nearly always the one.
      if (wanted < ends[leg - 1]) leg = 1;
      while (leg < knots.length - 1 && wanted > ends[leg]) leg++;
      const length = ends[leg] - ends[leg - 1];
      const share = length > 0 ? (wanted - ends[leg - 1]) / length : 0;
      const [ax, az] = knots[leg - 1];
      const [bx, bz] = knots[leg];
      return [ax + (bx - ax) * share, az + (bz - az) * share];
    },
  };
}
