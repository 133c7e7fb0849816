/** Times of one thing over several rounds. */
export interface Timing {
  readonly medianMs: number;
  /** Least and greatest, milliseconds. */
  readonly leastMs: number;
  readonly mostMs: number;
  readonly rounds: number;
}

/** One line of a benchmark's outcome. */
export interface Row {
  readonly name: string;
  readonly value: string | number;
  /** What the issue asks, in words; undefined for figures that are only told. */
  readonly goal?: string;
  /** Whether the goal is met; undefined without a goal. */
  readonly isMet?: boolean;
}

export function timing(samples: readonly number[]): Timing {
  const sorted = [...samples].sort((a, b) => a - b);
  return { medianMs: median(sorted), leastMs: sorted[0], mostMs: sorted[sorted.length - 1], rounds: samples.length };
}

export function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const middle = sorted.length >> 1;
  return sorted.length % 2 === 1 ? sorted[middle] : (sorted[middle - 1] + sorted[middle]) / 2;
}

/**
 * Runs two things in turns, so that what else the machine does meets both; the first round of each is thrown away.
 * @param collects whether garbage is collected before each run; that also makes the engine forget some of what it compiled, which weighs on
 * runs of few milliseconds
 */
export async function inTurns(
  rounds: number,
  one: () => unknown,
  other: () => unknown,
  collects = true,
): Promise<[Timing, Timing]> {
  const times: [number[], number[]] = [[], []];
  for (let round = 0; round <= rounds; round++) {
    for (const [k, work] of [one, other].entries()) {
      if (collects) globalThis.gc?.();
      const start = performance.now();
      await work();
      if (round > 0) times[k].push(performance.now() - start);
    }
  }
  return [timing(times[0]), timing(times[1])];
}

export function timingText({ medianMs, leastMs, mostMs, rounds }: Timing): string {
  return `${medianMs.toFixed(1)} ms (${leastMs.toFixed(1)} to ${mostMs.toFixed(1)}, ${rounds} rounds)`;
}

/** A ratio that must not be above a limit. */
export function atMost(name: string, value: number, limit: number, digits = 2): Row {
  return { name, value: value.toFixed(digits), goal: `at most ${limit}`, isMet: value <= limit };
}
