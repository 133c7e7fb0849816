import { DestroyRef, Injectable, InjectionToken, Injector, inject, signal, type Type } from '@angular/core';
import { DeskFrame } from '../desk/desk-frame';

/** What a sheet is opened with. */
export const SHEET_DATA = new InjectionToken<unknown>('what a sheet is opened with');
/** How a sheet is left. */
export const SHEET_CLOSE = new InjectionToken<(answer: unknown) => void>('how a sheet is left');

/** What sheets share: what they are opened with, and the way back with an answer. */
export abstract class Sheet<D = undefined, R = undefined> {
  readonly data = inject(SHEET_DATA) as D;
  private readonly leave = inject(SHEET_CLOSE);

  close(answer?: R): void {
    this.leave(answer);
  }
}

interface ShownSheet {
  readonly type: Type<unknown>;
  readonly injector: Injector;
  readonly leave: (answer: unknown) => void;
}

/** Opens what needs the plan beside it: over the card of the right column, with a way back. One at a time. */
@Injectable()
export class Sheets {
  private readonly injector = inject(Injector);
  private readonly frame = inject(DeskFrame);
  readonly shown = signal<ShownSheet | undefined>(undefined);

  constructor() {
    inject(DestroyRef).onDestroy(() => this.close());
  }

  /** @returns what was answered; undefined when the person went back, or opened another */
  open<D, R>(type: new () => Sheet<D, R>, data: D): Promise<R | undefined> {
    this.close();
    if (!this.frame.isRightOpen()) this.frame.foldRight();
    return new Promise((resolve) => {
      const leave = (answer: unknown): void => {
        if (this.shown()?.leave === leave) this.shown.set(undefined);
        resolve(answer as R | undefined);
      };
      const injector = Injector.create({
        parent: this.injector,
        providers: [
          { provide: SHEET_DATA, useValue: data },
          { provide: SHEET_CLOSE, useValue: leave },
        ],
      });
      this.shown.set({ type, injector, leave });
    });
  }

  close(): void {
    this.shown()?.leave(undefined);
  }
}
