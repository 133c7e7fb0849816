import { Injectable, inject } from '@angular/core';
import { Dialogs } from '../../../ui/dialogs';
import { Store } from '@ngrx/store';
import { DEFAULT_CODE_PATTERN, counted, plainJson } from '@stravel/core';
import { recordsFeature } from '../../../document/records/records-store';
import { EditLog } from '../../../edits/edit-log';
import { setRecordField } from '../../../edits/operations';
import type { CodesData } from './codes-dialog';

/** Keeps the pattern of codes and gives new ones to levels, as one edit. */
@Injectable()
export class CodeGiver {
  private readonly dialogs = inject(Dialogs);
  private readonly edits = inject(EditLog);
  private readonly store = inject(Store);
  private readonly tables = this.store.selectSignal(recordsFeature.selectTables);
  private readonly levels = this.store.selectSignal(recordsFeature.selectLevels);
  private readonly settings = this.store.selectSignal(recordsFeature.selectSettings);

  /** @param chosen ids of the levels that are chosen in the table */
  open(chosen: ReadonlySet<string>): void {
    const pattern = this.settings()?.codes ?? DEFAULT_CODE_PATTERN;
    const data: CodesData = { tables: this.tables(), pattern, levels: this.levels(), chosen };
    void this.dialogs
      .bring(() => import('./codes-dialog').then(({ CodesDialog }) => CodesDialog), data)
      .then((choice) => {
        const settings = this.settings();
        if (!choice || !settings) return;
        const kept =
          choice.pattern === pattern
            ? []
            : [setRecordField('collection', settings, 'codes', plainJson(choice.pattern))];
        const given = choice.codes.map(({ level, code }) => setRecordField('level', level, 'code', code));
        void this.edits.commit(given.length > 0 ? `codes of ${counted(given.length, 'level')}` : 'how codes are made', [
          ...kept,
          ...given,
        ]);
      });
  }
}
