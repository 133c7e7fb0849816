import { Injectable, inject } from '@angular/core';
import { Dialogs } from '../../../ui/dialogs';
import { Store } from '@ngrx/store';
import { counted, planCells, type FilledKind, type FilledRecord } from '@stravel/core';
import { recordsFeature } from '../../../document/records/records-store';
import { EditLog } from '../../../edits/edit-log';
import { FieldContext } from '../fields/field-context';
import type { TableColumn } from '../table-rows';
import type { PastedCells } from './cell-range';
import type { ChangeDialogData } from './change-dialog';
import type { CellsDialogData } from './cells-dialog';

/** Writes text into many cells as one edit, after showing what it would do. */
@Injectable()
export class CellWriter {
  private readonly dialogs = inject(Dialogs);
  private readonly edits = inject(EditLog);
  private readonly context = inject(FieldContext);
  private readonly tables = inject(Store).selectSignal(recordsFeature.selectTables);

  /** Changes a field of many records at once. */
  change(kind: FilledKind, records: readonly FilledRecord[], columns: readonly TableColumn[]): void {
    const data: ChangeDialogData = { kind, records, columns, tables: this.tables(), links: this.context.links() };
    void this.dialogs
      .bring(() => import('./change-dialog').then(({ ChangeDialog }) => ChangeDialog), data)
      .then((agreed) => {
        if (agreed) void this.edits.commit(agreed.label, agreed.plan.operations);
      });
  }

  write(kind: FilledKind, title: string, { texts, beyond }: PastedCells): void {
    const links = this.context.links();
    const plan = planCells(this.tables(), kind, texts, links);
    const data: CellsDialogData = { title, plan, links, beyond };
    void this.dialogs
      .bring(() => import('./cells-dialog').then(({ CellsDialog }) => CellsDialog), data)
      .then((agreed) => {
        if (agreed)
          void this.edits.commit(`${title.toLowerCase()}: ${counted(plan.counts.changed, 'cell')}`, plan.operations);
      });
  }
}
