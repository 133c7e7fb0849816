import { Injectable, computed, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { figureStateIn, levelFigureIn, linkLookup, type Field } from '@stravel/core';
import { LevelFigures } from '../../../bakes/level-figures';
import { recordsFeature } from '../../../document/records/records-store';

/** Most names that are suggested for a link. */
const MAX_SUGGESTED = 30;

/** What tables need beyond their own records: where links lead, and the figures that fields show. */
@Injectable()
export class FieldContext {
  private readonly store = inject(Store);
  private readonly tables = this.store.selectSignal(recordsFeature.selectTables);
  private readonly levels = this.store.selectSignal(recordsFeature.selectLevels);

  readonly links = computed(() => linkLookup(this.tables()));
  readonly suggest = computed(() => {
    const links = this.links();
    const [levels, entries] = [this.levels(), Object.values(this.tables().entry)];
    return (field: Field, text: string): readonly string[] => {
      const wanted = text.toLowerCase();
      const names: string[] = [];
      for (const { id, name } of field.type === 'entry' ? entries : levels) {
        if (name.toLowerCase().includes(wanted) && links.allowed(field, id)) names.push(name);
        if (names.length === MAX_SUGGESTED) break;
      }
      return names;
    };
  });
  readonly figures = inject(LevelFigures).table;
  readonly figureOf = computed(() => levelFigureIn(this.tables(), this.figures()));
  readonly figureStateOf = computed(() => figureStateIn(this.figures()));
}
