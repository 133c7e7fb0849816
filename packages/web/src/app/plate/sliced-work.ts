/** Work goes on for so long at a time, so that the page stays responsive. */
const SLICE_MS = 8;
/** What was done is shown no more often than this: a frame may cost more than many slices. */
const SHOW_MS = 300;

/** Long work on the page's thread, done in slices: a generator that yields where it may pause. The first slice is done at once. */
export class SlicedWork {
  private steps: Iterator<void> | undefined;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private shownAt = 0;

  /** @param wentOn called now and then while it goes on, and when it is done, but not for the first slice */
  constructor(private readonly wentOn: () => void = () => undefined) {}

  get isUnderWay(): boolean {
    return this.steps !== undefined;
  }

  /** Begins work; what was under way is given up. */
  begin(steps: Iterator<void>): void {
    this.stop();
    this.steps = steps;
    this.slice();
  }

  /** Does the rest at once. */
  finish(): void {
    const { steps } = this;
    if (!steps) return;
    this.stop();
    while (steps.next().done !== true);
  }

  stop(): void {
    // Asking the browser costs more than the rest of it, and many stop what does not run.
    if (this.timer !== undefined) clearTimeout(this.timer);
    this.timer = undefined;
    this.steps = undefined;
  }

  private slice(): void {
    const { steps } = this;
    const end = performance.now() + SLICE_MS;
    while (steps && this.steps === steps && performance.now() < end)
      if (steps.next().done === true) this.steps = undefined;
    if (!this.steps) return;
    this.timer = setTimeout(() => {
      this.timer = undefined;
      this.slice();
      const now = performance.now();
      if (this.steps && now < this.shownAt + SHOW_MS) return;
      this.shownAt = now;
      this.wentOn();
    });
  }
}
