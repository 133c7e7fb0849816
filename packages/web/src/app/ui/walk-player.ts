import { DestroyRef, Injectable, inject, signal } from '@angular/core';

/** How many times faster than the walk it is played. */
export const RATES = [1, 4, 16] as const;

/** A frame that takes longer than this goes on by so much, milliseconds: a slow machine plays more slowly and skips nothing. */
const MAX_FRAME_MS = 100;

/** Where the playhead of a walk is, and how it plays along. */
@Injectable()
export class WalkPlayer {
  private frame = 0;
  private readonly place = signal<number | undefined>(undefined);
  private readonly end = signal(0);
  /** Milliseconds from the start of the walk; undefined until a moment was chosen. */
  readonly atMs = this.place.asReadonly();
  readonly isPlaying = signal(false);
  readonly rate = signal<number>(RATES[1]);

  constructor() {
    inject(DestroyRef).onDestroy(() => this.stop());
  }

  /** Goes to a moment of a walk. */
  goTo(ms: number, endMs: number): void {
    this.end.set(endMs);
    this.place.set(Math.min(endMs, Math.max(0, ms)));
  }

  forget(): void {
    this.stop();
    this.place.set(undefined);
  }

  /** Plays on from where the playhead is, from the start when it is at the end; or stops. */
  toggle(endMs: number): void {
    if (this.isPlaying()) {
      this.stop();
      return;
    }
    const from = this.place() ?? 0;
    this.goTo(from >= endMs ? 0 : from, endMs);
    this.isPlaying.set(true);
    let before: number | undefined;
    const step = (now: number): void => {
      const ms = (this.place() ?? 0) + (before === undefined ? 0 : Math.min(MAX_FRAME_MS, now - before) * this.rate());
      before = now;
      this.goTo(ms, this.end());
      if (ms >= this.end()) this.stop();
      else this.frame = requestAnimationFrame(step);
    };
    this.frame = requestAnimationFrame(step);
  }

  stop(): void {
    cancelAnimationFrame(this.frame);
    this.isPlaying.set(false);
  }
}
