import { setImmediate as turn } from 'node:timers/promises';

/** How long work may hold the server's loop at a time, milliseconds. */
const STRETCH_MS = 15;

/** Long work on the server's loop, done in stretches: whatever else waits is served between them. */
export class Stretches {
  private began = performance.now();

  /** To be awaited often. Gives the loop back when it was held for a stretch, else costs next to nothing. */
  async rest(): Promise<void> {
    if (!this.isOver()) return;
    await turn();
    this.began = performance.now();
  }

  /** Even an `await` that waits for nothing is dear in a long loop. */
  private isOver(): boolean {
    return performance.now() - this.began > STRETCH_MS;
  }

  /** Takes a computation to its end, with rests where it pauses. */
  async finish<T>(steps: Generator<unknown, T>): Promise<T> {
    for (;;) {
      const step = steps.next();
      if (step.done) return step.value;
      await this.rest();
    }
  }

  /** Goes through a list in stretches. */
  async each<T>(list: Iterable<T>, work: (one: T) => void): Promise<void> {
    let count = 0;
    for (const one of list) {
      work(one);
      if (++count % LOOKS_A_STRETCH === 0 && this.isOver()) await this.rest();
    }
  }
}

/** The clock is asked once for so many things. */
const LOOKS_A_STRETCH = 64;
