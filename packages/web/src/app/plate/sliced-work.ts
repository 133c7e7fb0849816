/** Work goes on for so long at a time, so that the page stays responsive. */
const SLICE_MS = 8;

/** Long work on the page's thread, done in slices: a generator that yields where it may pause. The first slice is done at once. */
export class SlicedWork {
  private steps: Iterator<void> | undefined;
  private timer: ReturnType<typeof setTimeout> | undefined;

  /** @param wentOn called after each slice that is done later */
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
    this.stop();
    while (steps && steps.next().done !== true);
  }

  stop(): void {
    clearTimeout(this.timer);
    this.steps = undefined;
  }

  private slice(): void {
    const { steps } = this;
    const end = performance.now() + SLICE_MS;
    while (steps && this.steps === steps && performance.now() < end) if (steps.next().done === true) this.steps = undefined;
    if (!this.steps) return;
    this.timer = setTimeout(() => {
      this.slice();
      this.wentOn();
    });
  }
}
