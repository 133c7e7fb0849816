import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { MatDialogModule } from '@angular/material/dialog';
import { EditLog, type RefusedEdit } from '../edits/edit-log';
import type { WaitingEdit } from '../edits/outbox';
import { Dialog } from '../ui/dialog';

export interface RefusedData extends RefusedEdit {
  readonly waiting: WaitingEdit;
}

/** Shown when the server refused an edit: it is kept until the person retries or discards it. */
@Component({
  selector: 'sv-refused-dialog',
  imports: [MatDialogModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>A change was not saved</h2>
    <mat-dialog-content>
      <p>“{{ data.label }}” was refused:</p>
      <p class="over" role="alert">{{ data.reason }}</p>
      <p class="soft">It is kept in this browser. Other changes are saved meanwhile.</p>
      @if (copied()) {
        <p class="soft" role="status">{{ copied() }}</p>
      }
    </mat-dialog-content>
    <mat-dialog-actions>
      <button class="chip over" (click)="discard()">Discard</button>
      <button class="chip" (click)="copy()">Copy</button>
      <button class="chip strong" cdkFocusInitial (click)="retry()">Retry</button>
    </mat-dialog-actions>
  `,
  styles: `
    p {
      margin-bottom: 8px;
      overflow-wrap: anywhere;
    }
  `,
})
export class RefusedDialog extends Dialog<RefusedData> {
  static readonly size = { width: '520px' };
  private readonly edits = inject(EditLog);
  readonly copied = signal('');

  retry(): void {
    this.edits.retry(this.data.waiting);
    this.dialog.close();
  }

  /** The change as text, to be kept elsewhere or sent to whoever can help. */
  async copy(): Promise<void> {
    try {
      await navigator.clipboard.writeText(JSON.stringify(this.data.waiting.edit, null, 2));
      this.copied.set('The change is copied as text.');
    } catch {
      this.copied.set('The browser did not allow copying.');
    }
  }

  async discard(): Promise<void> {
    await this.edits.discard(this.data.waiting);
    this.dialog.close();
  }
}
