import { Injectable, computed, effect, inject, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import { recordsFeature } from './document/records/records-store';
import { Session } from './session';

const LEVEL_KEY = 'stravel.level';

/** Which level the desks are on, and what the foot of the page says. */
@Injectable({ providedIn: 'root' })
export class Workspace {
  private readonly levels = inject(Store).selectSignal(recordsFeature.selectLevels);
  private readonly session = inject(Session);
  private readonly key = computed(() => `${LEVEL_KEY}.${this.session.collection()?.id ?? ''}`);
  private readonly levelId = signal('');

  /** The open level: the one last chosen, else the first that has content, else the first. */
  readonly level = computed(() => {
    const levels = this.levels();
    return (
      levels.find(({ id }) => id === this.levelId()) ?? levels.find(({ strata }) => strata.length > 0) ?? levels.at(0)
    );
  });
  readonly footLeft = signal<readonly string[]>([]);
  readonly footRight = signal<readonly string[]>([]);
  /** What the open desk adds to its address so that another sees the same: view, selection, place. */
  readonly viewQuery = signal<(() => Readonly<Record<string, string>>) | undefined>(undefined);

  constructor() {
    effect(() => this.levelId.set(localStorage.getItem(this.key()) ?? ''));
  }

  openLevel(id: string): void {
    localStorage.setItem(this.key(), id);
    this.levelId.set(id);
  }
}
