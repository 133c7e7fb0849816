import { Injectable, computed, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { bytesText, countText, heldAt } from '@stravel/core';
import { Bakes } from '../bakes/bakes';
import { DocumentRegistry } from '../document/document-registry';
import { OpenLevel } from '../document/level/open-level';
import { recordsFeature } from '../document/records/records-store';
import type { StratumLine } from './strata-list';

/** The strata of the open level, top first, with what is counted of each. */
@Injectable()
export class StrataLines {
  private readonly bakes = inject(Bakes);
  private readonly openLevel = inject(OpenLevel);
  private readonly registry = inject(DocumentRegistry);
  private readonly tables = inject(Store).selectSignal(recordsFeature.selectTables);

  readonly objects = computed(() => {
    this.registry.contentVersion();
    const sizes = new Map(this.openLevel.strata().map(({ id, size }) => [id, size]));
    return this.linesOf((id) => sizes.get(id), countText);
  });
  readonly memory = computed(() => {
    const bakes = this.bakes.byLevel()[this.openLevel.level()?.id ?? ''];
    const strata = (bakes?.count ?? bakes?.figures.summary)?.strata ?? [];
    const of = new Map(strata.map(({ stratum, memoryBytes }) => [stratum, memoryBytes]));
    return this.linesOf((id) => of.get(id), bytesText);
  });

  private linesOf(of: (stratum: string) => number | undefined, text: (value: number) => string): StratumLine[] {
    const strata = [...(this.openLevel.level()?.strata ?? [])].reverse();
    const most = Math.max(1, ...strata.map(({ stratum }) => of(stratum) ?? 0));
    return strata.flatMap(({ stratum, switchedOff }): StratumLine[] => {
      const record = heldAt(this.tables().stratum, stratum);
      if (!record) return [];
      const value = of(stratum);
      return [
        {
          id: stratum,
          name: record.name,
          role: record.role,
          text: value === undefined ? '?' : text(value),
          share: (value ?? 0) / most,
          note: switchedOff ? `${record.name}: switched off in test runs` : record.name,
        },
      ];
    });
  }
}
