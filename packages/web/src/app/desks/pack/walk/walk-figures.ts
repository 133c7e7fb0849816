import { COMPARED, figuresAtStops, type ComparedFigure, type WalkRun } from '@stravel/core/pack-walk';

/** A run as lanes draw it: shares of its way, and the figures there. */
export interface RunFigures {
  /** 0 to 1. */
  readonly shares: readonly number[];
  readonly values: Readonly<Record<ComparedFigure, readonly number[]>>;
  readonly late: readonly {
    readonly from: number;
    readonly to: number;
    readonly key: string;
    readonly lateMs: number;
  }[];
}

export function runFigures(run: WalkRun): RunFigures {
  const { durationMs, frameMs } = run;
  return {
    shares: run.stops.map(({ frame }) => (frame * frameMs) / durationMs),
    values: figuresAtStops(run),
    late: run.late.map(({ key, neededMs, lateMs }) => ({
      key,
      lateMs,
      from: neededMs / durationMs,
      to: (neededMs + lateMs) / durationMs,
    })),
  };
}

/** The greatest of each figure over some runs. */
export function peaksOf(runs: readonly RunFigures[]): Record<ComparedFigure, number> {
  const peak = (what: ComparedFigure): number =>
    runs.reduce((most, { values }) => values[what].reduce((a, b) => Math.max(a, b), most), 0);
  const peaks = Object.fromEntries(COMPARED.map((what) => [what, peak(what)]));
  return peaks as Record<ComparedFigure, number>;
}

/** The number of the last stop that is not after a share of the way; the first where there is none before it. */
export function stopAt(shares: readonly number[], share: number): number {
  let [low, high] = [0, shares.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (shares[middle] <= share + 1e-9) low = middle + 1;
    else high = middle;
  }
  return Math.max(0, low - 1);
}

/** A series as the path of an SVG whose x and y go from 0 to 1, 0 at the foot. @param isStepped keeps a value until the next */
export function seriesPath(
  shares: readonly number[],
  values: readonly number[],
  top: number,
  isStepped: boolean,
): string {
  let path = '';
  values.forEach((value, i) => {
    const [x, y] = [shares[i].toFixed(5), (1 - value / Math.max(1, top)).toFixed(4)];
    path += path === '' ? `M${x} ${y}` : isStepped ? `H${x}V${y}` : `L${x} ${y}`;
  });
  return path === '' ? '' : `${path}H1`;
}
