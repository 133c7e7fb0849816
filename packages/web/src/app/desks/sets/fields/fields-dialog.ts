import { CdkDrag, CdkDragHandle, CdkDropList, type CdkDragDrop } from '@angular/cdk/drag-drop';
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatDialogModule } from '@angular/material/dialog';
import { Store } from '@ngrx/store';
import { fieldsOf, ordersBetween, type Field } from '@stravel/core';
import { recordsFeature } from '../../../document/records/records-store';
import { EditLog } from '../../../edits/edit-log';
import { setRecordField } from '../../../edits/operations';
import { Dialog } from '../../../ui/dialog';

export interface FieldsDialogData {
  /** Null for the levels. */
  readonly register: string | null;
  readonly edit: (field: Field) => void;
  readonly add: (register: string | null) => void;
}

/** The fields of a table in order: opened, added, put in another order. */
@Component({
  selector: 'sv-fields-dialog',
  imports: [CdkDrag, CdkDragHandle, CdkDropList, MatDialogModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>Fields</h2>
    <mat-dialog-content>
      <div cdkDropList (cdkDropListDropped)="drop($event)" role="list">
        @for (field of fields(); track field.id; let i = $index) {
          <div class="line" cdkDrag role="listitem">
            <span cdkDragHandle class="drag" aria-hidden="true">⠿</span>
            <button class="plain" (click)="data.edit(field)">{{ field.name }}</button>
            <span class="soft">{{ field.figure ? 'counted: ' + field.figure : field.type }}{{ field.list ? ', list' : '' }}{{ field.group ? ' · ' + field.group : '' }}</span>
            <button class="plain" [disabled]="i === 0" (click)="move(i, i - 1)" [attr.aria-label]="'Move ' + field.name + ' up'">↑</button>
            <button class="plain" [disabled]="i === fields().length - 1" (click)="move(i, i + 1)" [attr.aria-label]="'Move ' + field.name + ' down'">↓</button>
          </div>
        } @empty {
          <p class="soft">No fields yet. Each has a type and adds a column to the table.</p>
        }
      </div>
    </mat-dialog-content>
    <mat-dialog-actions>
      <button class="chip" mat-dialog-close>Close</button>
      <button class="chip strong" (click)="data.add(data.register)">New field</button>
    </mat-dialog-actions>
  `,
  styles: `
    mat-dialog-actions {
      gap: 8px;
    }
    .line {
      display: grid;
      grid-template-columns: 20px auto 1fr auto auto;
      gap: 8px;
      align-items: center;
      border-bottom: 1px solid var(--line);
      background: var(--raised);
    }
    .drag {
      cursor: grab;
      color: var(--soft-ink);
    }
  `,
})
export class FieldsDialog extends Dialog<FieldsDialogData> {
  static readonly size = { width: '560px' };
  private readonly edits = inject(EditLog);
  private readonly tables = inject(Store).selectSignal(recordsFeature.selectTables);
  readonly fields = computed(() => fieldsOf(this.tables(), this.data.register));

  async drop({ previousIndex, currentIndex }: CdkDragDrop<unknown>): Promise<void> {
    await this.move(previousIndex, currentIndex);
  }

  async move(from: number, to: number): Promise<void> {
    const field = this.fields()[from];
    const rest = this.fields().filter((one) => one !== field);
    const [order] = ordersBetween(rest[to - 1]?.order ?? null, rest[to]?.order ?? null);
    if (from !== to)
      await this.edits.commit(`move the field ${field.name}`, [setRecordField('field', field, 'order', order)]);
  }
}
