import { CountedPipe } from '../ui/counted-pipe';
import { ChangeDetectionStrategy, Component, computed, signal } from '@angular/core';
import { MatDialogModule } from '@angular/material/dialog';
import { Dialog } from '../ui/dialog';

/** Why findings are accepted, and until when. */
export interface Accepted {
  readonly reason: string;
  /** 'YYYY-MM-DD'; on the day after, they ask again. */
  readonly until: string;
}

/** Asks for a reason and a date before findings are set quiet. */
@Component({
  selector: 'sv-accept-dialog',
  imports: [CountedPipe, MatDialogModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>Accept {{ data | counted: 'finding' }}</h2>
    <mat-dialog-content>
      <label>Reason <input class="cell" #reasonBox cdkFocusInitial maxlength="2000" (input)="reason.set(reasonBox.value)" /></label>
      <label>Ask again after <input class="cell" #untilBox type="date" (input)="until.set(untilBox.value)" /></label>
    </mat-dialog-content>
    <mat-dialog-actions>
      <button class="chip" mat-dialog-close>Cancel</button>
      <button class="chip strong" [disabled]="!isComplete()" (click)="dialog.close({ reason: reason().trim(), until: until() })">Accept</button>
    </mat-dialog-actions>
  `,
  styles: `
    label {
      display: grid;
      gap: 4px;
      margin-top: 8px;
    }
  `,
})
export class AcceptDialog extends Dialog<number, Accepted> {
  static readonly size = { width: '440px' };
  readonly reason = signal('');
  readonly until = signal('');
  readonly isComplete = computed(() => this.reason().trim() !== '' && /^\d{4}-\d\d-\d\d$/.test(this.until()));
}
