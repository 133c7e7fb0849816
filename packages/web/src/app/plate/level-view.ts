import { Injectable, InjectionToken, computed, inject, signal, type Provider } from '@angular/core';
import { Store } from '@ngrx/store';
import type { Handler } from '../desk/command';
import { DeskFrame, FRAME_DESK } from '../desk/desk-frame';
import type { PLATE_COMMANDS } from '../desk/level-commands';
import { levelViewsActions, levelViewsFeature, type LevelViewState } from './level-views-store';

/** How a desk begins with a level. */
export interface LevelViewStart {
  /** Id of the desk. */
  readonly desk: string;
  /** Bottom of the heights shown when a level is opened, metres. */
  readonly bottom: number;
  readonly storeyMetres: number;
}

/** The lowest storey shown begins so far under the ground, so that floors at its height are seen. */
const UNDER_GROUND_METRES = 0.5;

const LEVEL_VIEW_START = new InjectionToken<LevelViewStart>('how a desk begins with a level');

/** The heights that a desk's plan shows, and which of plan and model are shown: kept a desk, so that one comes back to them. */
@Injectable()
export class LevelView {
  private readonly store = inject(Store);
  private readonly start = inject(LEVEL_VIEW_START);
  readonly desk = this.start.desk;
  readonly frame = inject(DeskFrame);
  private readonly byDesk = this.store.selectSignal(levelViewsFeature.selectByDesk);
  readonly shown = computed((): LevelViewState => {
    const { desk, bottom, storeyMetres } = this.start;
    const kept = this.byDesk();
    return Object.hasOwn(kept, desk) ? kept[desk] : { bottom, storeyMetres, views: 'both' };
  });
  readonly range = computed(() => {
    const { bottom, storeyMetres } = this.shown();
    return { bottom, top: bottom + storeyMetres };
  });

  /** Whether the model is seen from where one stands. */
  readonly isAtEyeLevel = signal(false);

  flipEyeLevel(): void {
    this.isAtEyeLevel.update((is) => !is);
    if (this.isAtEyeLevel() && this.shown().views === 'plan') this.put({ views: 'model' });
  }

  put(view: Partial<LevelViewState>): void {
    this.store.dispatch(levelViewsActions.viewPut({ desk: this.desk, view: { ...this.shown(), ...view } }));
  }

  /** Shows the heights that another level is opened with. */
  open(): void {
    this.isAtEyeLevel.set(false);
    this.put({ bottom: this.start.bottom, cut: undefined });
  }

  /** Shows the storey below or above. */
  step(by: 1 | -1): void {
    const { bottom, storeyMetres } = this.shown();
    this.put({ bottom: bottom + by * storeyMetres });
  }

  /** Shows the storey that a height lies in, counted from half a metre under the ground. */
  showStoreyOf(height: number): void {
    const { storeyMetres } = this.shown();
    this.put({ bottom: (this.storeyOf(height) - 1) * storeyMetres - UNDER_GROUND_METRES });
  }

  /** Number of the storey that a height lies in: the first is on the ground. */
  storeyOf(height: number): number {
    return Math.floor((height + UNDER_GROUND_METRES + 1e-9) / this.shown().storeyMetres) + 1;
  }

  /** What the commands of every plate do. @param frame brings the level, or what is in hand, into view */
  handlers(frame: () => unknown): Readonly<Record<(typeof PLATE_COMMANDS)[number]['id'], Handler>> {
    return {
      frame: { run: frame },
      'storey-down': { run: () => this.step(-1) },
      'storey-up': { run: () => this.step(1) },
      'swap-views': { run: () => this.frame.swap() },
      'eye-level': { run: () => this.flipEyeLevel() },
      'fold-right': { run: () => this.frame.foldRight() },
      'fold-left': { run: () => this.frame.foldLeft() },
    };
  }
}

/** The view of a desk's level, for its page. */
export const levelView = (start: LevelViewStart): Provider[] => [
  { provide: LEVEL_VIEW_START, useValue: start },
  { provide: FRAME_DESK, useValue: start.desk },
  DeskFrame,
  LevelView,
];
