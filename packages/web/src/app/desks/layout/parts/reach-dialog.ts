import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { MAT_DIALOG_DATA, MatDialogModule } from '@angular/material/dialog';

export interface ReachDialogData {
  readonly stratum: string;
  readonly levels: readonly string[];
}

/** Asked once before shared content changes: how far the change reaches. */
@Component({
  selector: 'sv-reach-dialog',
  imports: [MatDialogModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>This reaches {{ data.levels.length }} levels</h2>
    <mat-dialog-content>
      <p>{{ data.stratum }} is shared. What you change in it changes in:</p>
      <ul>
        @for (level of data.levels.slice(0, 12); track $index) {
          <li>{{ level }}</li>
        }
      </ul>
      @if (data.levels.length > 12) {
        <p class="soft">and {{ data.levels.length - 12 }} more</p>
      }
    </mat-dialog-content>
    <mat-dialog-actions>
      <button class="chip" [mat-dialog-close]="false" cdkFocusInitial>Leave it</button>
      <button class="chip strong" [mat-dialog-close]="true">Change all {{ data.levels.length }}</button>
    </mat-dialog-actions>
  `,
})
export class ReachDialog {
  readonly data = inject<ReachDialogData>(MAT_DIALOG_DATA);
}
