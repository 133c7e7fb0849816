import { SlicedWork } from './sliced-work';

/** So many things are drawn anew at once; more of them in slices. */
const AT_ONCE = 256;

/** Draws changed things anew: few at once, many a slice at a time, each once however often it changed meanwhile. */
export class LaterUpdates<T> {
  private readonly waiting = new Set<T>();
  private readonly work: SlicedWork;

  /** @param drawn called when a slice was drawn later than it was asked for @param atOnce more are drawn in slices */
  constructor(
    private readonly draw: (one: T) => void,
    drawn: () => void,
    private readonly atOnce = AT_ONCE,
  ) {
    this.work = new SlicedWork(drawn);
  }

  get isUnderWay(): boolean {
    return this.work.isUnderWay;
  }

  /** Things that are still to be drawn. */
  get left(): Iterable<T> {
    return this.waiting;
  }

  add(things: Iterable<T>): void {
    for (const one of things) this.waiting.add(one);
    if (this.waiting.size <= this.atOnce) for (const one of this.takeAll()) this.draw(one);
    else if (!this.work.isUnderWay) this.work.begin(this.drawAll());
  }

  /** Forgets what is still to be drawn. */
  stop(): void {
    this.work.stop();
    this.waiting.clear();
  }

  private takeAll(): T[] {
    const things = [...this.waiting];
    this.stop();
    return things;
  }

  private *drawAll(): Generator<void> {
    // A set hands out what is added while it is gone through, too.
    for (const one of this.waiting) {
      this.waiting.delete(one);
      this.draw(one);
      yield;
    }
  }
}
