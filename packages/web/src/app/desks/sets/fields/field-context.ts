import { Injectable, computed, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { linkLookup, type Field, type FieldFigure } from '@stravel/core';
import { bakesFeature } from '../../../bakes/bakes-store';
import { recordsFeature } from '../../../document/records/records-store';

/** Most names that are suggested for a link. */
const MOST_SUGGESTED = 30;

/** What tables need beyond their own records: where links lead, and the figures that fields show. */
@Injectable({ providedIn: 'root' })
export class FieldContext {
  private readonly store = inject(Store);
  private readonly tables = this.store.selectSignal(recordsFeature.selectTables);
  private readonly levels = this.store.selectSignal(recordsFeature.selectLevels);
  private readonly bakes = this.store.selectSignal(bakesFeature.selectByLevel);

  readonly links = computed(() => linkLookup(this.tables()));
  readonly suggest = computed(() => {
    const links = this.links();
    const [levels, entries] = [this.levels(), Object.values(this.tables().entry)];
    return (field: Field, text: string): readonly string[] => {
      const wanted = text.toLowerCase();
      const names: string[] = [];
      for (const { id, name } of field.type === 'entry' ? entries : levels) {
        if (name.toLowerCase().includes(wanted) && links.allowed(field, id)) names.push(name);
        if (names.length === MOST_SUGGESTED) break;
      }
      return names;
    };
  });
  readonly figureOf = computed(() => {
    const [bakes, levels] = [this.bakes(), this.tables().level];
    return (level: string, figure: FieldFigure): number | null => {
      if (figure === 'strata') return levels[level]?.strata.length ?? null;
      const summary = bakes[level]?.figures.summary;
      if (!summary) return null;
      switch (figure) {
        case 'triangles of the worst pocket':
          return summary.worst.at(0)?.triangles ?? null;
        case 'draw calls of the worst pocket':
          return summary.worstDrawCalls?.drawCalls ?? null;
        case 'memory bytes':
          return summary.memoryBytes;
        case 'disk bytes':
          return summary.diskBytes;
      }
    };
  });
}
