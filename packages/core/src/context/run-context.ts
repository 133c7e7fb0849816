import { CoreError } from '../errors';
import { randomStream, type RandomStream } from '../random/random-stream';

/** Anything that can say that a run is no longer wanted; an AbortSignal satisfies it. */
export interface CancelSignal {
  readonly aborted: boolean;
}

/** What a computation is given beside its input: seeded randomness, a way to stop, a way to say how far it is. */
export interface RunContext {
  /** A named stream of random numbers; equal seed and name give equal numbers. */
  random(name: string): RandomStream;
  /** @throws CoreError 'CANCELLED' when the run is no longer wanted */
  checkCancelled(): void;
  /** @param fraction 0 to 1, never going back @param stage what is being done, for a person */
  progress(fraction: number, stage: string): void;
  /** Tells the key of a bake before it is made: whoever has it already may stop the run. @param name its kind and subject */
  keyed(name: BakeName, key: string): void;
}

/** What is baked, of what. */
export interface BakeName {
  readonly kind: string;
  readonly subject: string;
}

export interface RunContextOptions {
  /** Seed of all streams. Default 'stravel'. */
  readonly seed?: string;
  readonly cancel?: CancelSignal;
  readonly onProgress?: (fraction: number, stage: string) => void;
  readonly onKey?: (name: BakeName, key: string) => void;
}

/** Makes a context; with no options it never cancels and reports to nobody. */
export function createRunContext(options: RunContextOptions = {}): RunContext {
  const seed = options.seed ?? 'stravel';
  let reached = 0;
  return {
    random: (name) => randomStream(`${seed}\u0000${name}`),
    checkCancelled: () => {
      if (options.cancel?.aborted) throw new CoreError('CANCELLED', 'run: cancelled on request');
    },
    progress: (fraction, stage) => {
      reached = Math.max(reached, Math.min(1, fraction));
      options.onProgress?.(reached, stage);
    },
    keyed: (name, key) => options.onKey?.(name, key),
  };
}
