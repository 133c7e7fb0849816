import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatDialogModule } from '@angular/material/dialog';
import { EditLog } from '../edits/edit-log';
import { valueText } from '../ui/value-text';
import { Dialog } from '../ui/dialog';

/** Shown when a value changed under an edit: both values, and the choice between them. */
@Component({
  selector: 'sv-conflict-dialog',
  imports: [MatDialogModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>Conflicts with a newer change</h2>
    <mat-dialog-content>
      <p>“{{ label() }}” conflicts with a newer change. Choose which to keep.</p>
      <table>
        <thead>
          <tr>
            <th scope="col">What</th>
            <th scope="col">Yours</th>
            <th scope="col">Now</th>
          </tr>
        </thead>
        <tbody>
          @for (row of rows(); track $index) {
            <tr>
              <td>{{ row.what }}</td>
              <td class="mono">{{ row.mine }}</td>
              <td class="mono">{{ row.theirs }}</td>
            </tr>
          }
        </tbody>
      </table>
      @if (fault()) {
        <p class="over" role="alert">{{ fault() }}</p>
      }
    </mat-dialog-content>
    <mat-dialog-actions>
      <button class="chip" (click)="settle('theirs')">Keep newer</button>
      <button class="chip strong" (click)="settle('mine')">Keep mine</button>
    </mat-dialog-actions>
  `,
  styles: `
    table {
      margin-top: 12px;
      border-collapse: collapse;
      width: 100%;
    }
    th,
    td {
      text-align: left;
      padding: 5px 14px 5px 0;
      border-bottom: 1px solid var(--line);
      max-width: 220px;
      overflow-wrap: anywhere;
    }
  `,
})
export class ConflictDialog extends Dialog {
  static readonly size = { width: '620px' };
  private readonly edits = inject(EditLog);
  readonly fault = signal('');
  readonly label = computed(() => this.edits.conflict()?.waiting.edit.label ?? '');
  readonly rows = computed(() =>
    (this.edits.conflict()?.conflicts ?? []).slice(0, 50).map(({ operation, current }) => ({
      what: `${operation.kind} ${operation.field?.replace(/^values\./, '') ?? ''}`,
      mine: valueText(operation.after),
      theirs:
        current === null && operation.field !== null && !this.edits.stands(operation) ? 'deleted' : valueText(current),
    })),
  );

  async settle(choice: 'mine' | 'theirs'): Promise<void> {
    this.fault.set(await this.edits.settle(choice));
    if (this.fault() === '') this.dialog.close();
  }
}
