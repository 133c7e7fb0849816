import { Injectable, inject } from '@angular/core';
import { Dialogs } from '../../../ui/dialogs';
import { Store } from '@ngrx/store';
import { counted, type CellColumn, type LevelSet, type SetNode } from '@stravel/core';
import { recordsFeature } from '../../../document/records/records-store';
import { EditLog } from '../../../edits/edit-log';
import type { CsvDialogData } from './csv-dialog';
import { downloadCsv } from './csv-mapping';

/** Tables out to CSV files and in again. */
@Injectable()
export class CsvTransfer {
  private readonly dialogs = inject(Dialogs);
  private readonly edits = inject(EditLog);
  private readonly tables = inject(Store).selectSignal(recordsFeature.selectTables);
  private readonly tree = inject(Store).selectSignal(recordsFeature.selectTree);

  takeOut(register: string | null, columns: readonly CellColumn[], fileName: string): void {
    downloadCsv(this.tables(), register, columns, fileName);
  }

  takeIn(register: string | null, columns: readonly CellColumn[]): void {
    const data: CsvDialogData = { register, columns, tables: this.tables(), sets: setsOf(this.tree()) };
    void this.dialogs
      .bring(() => import('./csv-dialog').then(({ CsvDialog }) => CsvDialog), data)
      .then((decision) => {
        if (decision)
          void this.edits.commit(`import ${counted(decision.count, 'row')} from a CSV file`, decision.operations);
      });
  }
}

function setsOf(tree: readonly SetNode[]): LevelSet[] {
  return tree.flatMap(({ set, sets }) => [set, ...setsOf(sets)]);
}
