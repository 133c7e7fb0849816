import { Injectable, effect, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { LevelFigures } from '../bakes/level-figures';
import { RecordsMirror } from '../compute/records-mirror';
import { recordsFeature } from '../document/records/records-store';

/** What is wrong with the collection as data; checked in a worker after every change. */
@Injectable({ providedIn: 'root' })
export class SetCheck {
  private readonly mirror = inject(RecordsMirror);
  readonly findings = this.mirror.findings;

  constructor() {
    const state = inject(Store).selectSignal(recordsFeature.selectRecordsState);
    const { table } = inject(LevelFigures);
    effect(() => {
      const { loaded, tables } = state();
      if (loaded) this.mirror.follow(tables, table());
    });
  }
}
