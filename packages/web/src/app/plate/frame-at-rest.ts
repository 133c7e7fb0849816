/** So long after the last frame a view rests, milliseconds. */
export const REST_MS = 150;
/** What takes longer to draw is not drawn finer, milliseconds. */
const MOST_FRAME_MS = 30;

/** What is drawn once more. */
export interface RestingView {
  /** The same as long as a frame takes about as long. */
  key(): string;
  /** Draws a frame as before and tells how long that took until it was drawn, milliseconds. */
  timed(): Promise<number>;
  /** Draws the finer frame. */
  fine(): unknown;
}

/** Draws a view once more, finer, when it has rested; not where a frame takes long, so that moving stays as fast. */
export class FrameAtRest {
  private timer: ReturnType<typeof setTimeout> | undefined;
  private frame = 0;
  /** Key of what takes too long. */
  private slow: string | undefined;

  constructor(private readonly view: RestingView) {}

  /** A frame was drawn because something had changed. */
  drawn(): void {
    this.end();
    this.timer = setTimeout(() => void this.rest(), REST_MS);
  }

  end(): void {
    this.frame++;
    clearTimeout(this.timer);
  }

  private async rest(): Promise<void> {
    const { frame, view } = this;
    const key = view.key();
    if (key === this.slow) return;
    if ((await view.timed()) > MOST_FRAME_MS) this.slow = key;
    else if (frame === this.frame) await view.fine();
  }
}
