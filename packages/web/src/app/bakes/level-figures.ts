import { Injectable, computed, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import type { LevelFiguresTable } from '@stravel/core';
import { bakesFeature } from './bakes-store';

/** What the kept bakes have counted in each level. */
@Injectable({ providedIn: 'root' })
export class LevelFigures {
  private readonly bakes = inject(Store).selectSignal(bakesFeature.selectByLevel);
  readonly table = computed((): LevelFiguresTable =>
    Object.fromEntries(
      Object.values(this.bakes()).flatMap(({ level, figures: { summary } }) => {
        if (!summary) return [];
        const { worst, worstDrawCalls, memoryBytes, diskBytes, tally } = summary;
        return [[level, { worst: worst.slice(0, 1), worstDrawCalls, memoryBytes, diskBytes, tally }] as const];
      }),
    ),
  );
}
