import { DestroyRef, inject, signal } from '@angular/core';
import { CoreError, errorText } from '@stravel/core';
import type { Run } from './compute';

/** What a desk is computing: how far it is, why it failed, and a way to stop it. One at a time. */
export class WorkInHand {
  private readonly reached = signal<{ readonly fraction: number; readonly stage: string } | undefined>(undefined);
  private run: Run<unknown> | undefined;
  private turn = 0;
  readonly progress = this.reached.asReadonly();
  readonly failure = signal('');

  /** Tells how far it is; to be handed to a run. */
  readonly say = (fraction: number, stage: string): void => this.reached.set({ fraction, stage });

  /** Does work with its progress shown; undefined when it was cancelled or failed (see `failure`). */
  async do<T>(firstStage: string, work: () => Promise<T>): Promise<T | undefined> {
    const turn = ++this.turn;
    this.failure.set('');
    this.say(0, firstStage);
    try {
      return await work();
    } catch (error) {
      if (turn === this.turn && !(error instanceof CoreError && error.code === 'CANCELLED'))
        this.failure.set(errorText(error));
      return undefined;
    } finally {
      // Other work may have begun meanwhile.
      if (turn === this.turn) {
        this.reached.set(undefined);
        this.run = undefined;
      }
    }
  }

  /** Makes a run the one that `cancel` stops. */
  keep<T>(run: Run<T>): Promise<T> {
    this.run = run;
    return run.result;
  }

  cancel(): void {
    this.run?.cancel();
  }
}

/** Work that ends with who does it. Must be called where things are injected. */
export function workUntilLeft(): WorkInHand {
  const work = new WorkInHand();
  inject(DestroyRef).onDestroy(() => work.cancel());
  return work;
}
