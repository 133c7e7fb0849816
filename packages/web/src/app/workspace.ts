import { Injectable, computed, inject, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import { recordsFeature } from './document/records/records-store';

const LEVEL_KEY = 'stravel.level';

/** Which level the desks are on, and what the foot of the page says. */
@Injectable({ providedIn: 'root' })
export class Workspace {
  private readonly levels = inject(Store).selectSignal(recordsFeature.selectLevels);
  private readonly levelId = signal(localStorage.getItem(LEVEL_KEY) ?? '');

  /** The open level: the one last chosen, else the first that has content, else the first. */
  readonly level = computed(() => {
    const levels = this.levels();
    return levels.find(({ id }) => id === this.levelId()) ?? levels.find(({ strata }) => strata.length > 0) ?? levels.at(0);
  });
  readonly footLeft = signal<readonly string[]>([]);
  readonly footRight = signal<readonly string[]>([]);

  openLevel(id: string): void {
    localStorage.setItem(LEVEL_KEY, id);
    this.levelId.set(id);
  }
}
