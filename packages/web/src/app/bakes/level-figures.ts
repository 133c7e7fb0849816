import { Injectable, computed, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { loadOf, type LevelFiguresTable } from '@stravel/core';
import { bakesFeature, costsOf } from './bakes-store';

/** What is counted in each level: without a bake what needs none, and what the kept bakes say is seen. */
@Injectable({ providedIn: 'root' })
export class LevelFigures {
  private readonly bakes = inject(Store).selectSignal(bakesFeature.selectByLevel);
  readonly table = computed((): LevelFiguresTable =>
    Object.fromEntries(
      Object.values(this.bakes()).flatMap((bakes) => {
        const { level, count } = bakes;
        const { summary, state } = bakes.figures;
        const counted = count ?? summary;
        if (!counted) return [];
        return [
          [
            level,
            {
              worst: summary?.worst.slice(0, 1) ?? [],
              worstDrawCalls: summary?.worstDrawCalls ?? null,
              load: loadOf(costsOf(bakes)) ?? null,
              tally: counted.tally,
              seen: state === 'fresh' ? 'known' : state === 'stale' ? 'stale' : 'not known',
              counted: count ? 'known' : 'stale',
            },
          ] as const,
        ];
      }),
    ),
  );
}
