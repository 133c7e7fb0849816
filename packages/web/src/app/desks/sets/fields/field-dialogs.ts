import { Injectable, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { fieldsOf, heldAt, ordersBetween, type Field } from '@stravel/core';
import { Dialogs } from '../../../ui/dialogs';
import { recordsFeature } from '../../../document/records/records-store';
import { EditLog } from '../../../edits/edit-log';
import { newId } from '../../../edits/operations';
import { FieldContext } from './field-context';
import type { FieldDialogData } from './field-dialog';
import type { FieldsDialogData } from './fields-dialog';

/** Opens the dialogs in which fields are made and changed, and makes what was decided one edit. */
@Injectable()
export class FieldDialogs {
  private readonly dialogs = inject(Dialogs);
  private readonly edits = inject(EditLog);
  private readonly context = inject(FieldContext);
  private readonly tables = inject(Store).selectSignal(recordsFeature.selectTables);

  list(register: string | null): void {
    const data: FieldsDialogData = { register, edit: (field) => this.edit(field), add: (of) => this.add(of) };
    void this.dialogs.bring(() => import('./fields-dialog').then(({ FieldsDialog }) => FieldsDialog), data);
  }

  add(register: string | null): void {
    const [order] = ordersBetween(fieldsOf(this.tables(), register).at(-1)?.order ?? null, null);
    this.open(null, { id: newId(), order, register });
  }

  edit(field: Field): void {
    const { id, order, register } = field;
    this.open(field, { id, order, register: register ?? null });
  }

  /** Opens a field by its id; nothing when it is gone. */
  editById(id: string): void {
    const field = heldAt(this.tables().field, id);
    if (field) this.edit(field);
  }

  private open(field: Field | null, base: FieldDialogData['base']): void {
    const data: FieldDialogData = { field, base, tables: this.tables(), links: this.context.links() };
    void this.dialogs
      .bring(() => import('./field-dialog').then(({ FieldDialog }) => FieldDialog), data)
      .then((decision) => {
        if (decision) void this.edits.commit(decision.label, decision.change.operations);
      });
  }
}
