import { ChangeDetectionStrategy, Component } from '@angular/core';
import { MatDialogModule } from '@angular/material/dialog';
import { Dialog } from './dialog';

export interface LossData {
  readonly title: string;
  readonly text: string;
  /** What will be lost, a line each. */
  readonly losses: readonly string[];
  readonly command: string;
}

/** Says who loses what, before something goes for good. */
@Component({
  selector: 'sv-loss-dialog',
  imports: [MatDialogModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>{{ data.title }}</h2>
    <mat-dialog-content>
      <p>{{ data.text }}</p>
      <ul tabindex="0" role="group" aria-label="What will be lost">
        @for (line of data.losses; track $index) {
          <li>{{ line }}</li>
        }
      </ul>
    </mat-dialog-content>
    <mat-dialog-actions>
      <button class="chip" mat-dialog-close cdkFocusInitial>Cancel</button>
      <button class="chip strong" [mat-dialog-close]="true">{{ data.command }}</button>
    </mat-dialog-actions>
  `,
  styles: `
    ul {
      max-height: 260px;
      overflow: auto;
      padding-left: 20px;
    }
  `,
})
export class LossDialog extends Dialog<LossData, boolean> {
  static readonly size = { width: '460px' };
}
