import { CountedPipe } from '../../../ui/counted-pipe';
import { ChangeDetectionStrategy, Component } from '@angular/core';
import { MatDialogModule } from '@angular/material/dialog';
import type { CellPlan, LinkLookup } from '@stravel/core';
import { PreviewCells } from './preview-cells';
import { Dialog } from '../../../ui/dialog';

export interface CellsDialogData {
  readonly title: string;
  readonly plan: CellPlan;
  readonly links: LinkLookup;
  /** Cells of what was pasted that reach beyond the table. */
  readonly beyond: number;
}

/** Shows what would be written into many cells, before it is. */
@Component({
  selector: 'sv-cells-dialog',
  imports: [CountedPipe, MatDialogModule, PreviewCells],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>{{ data.title }}</h2>
    <mat-dialog-content><sv-preview-cells [plan]="data.plan" [links]="data.links" [beyond]="data.beyond" /></mat-dialog-content>
    <mat-dialog-actions>
      <button class="chip" mat-dialog-close>Cancel</button>
      <button class="chip strong" cdkFocusInitial [disabled]="data.plan.counts.changed === 0" (click)="dialog.close(true)">
        Write {{ data.plan.counts.changed | counted: 'cell' }}
      </button>
    </mat-dialog-actions>
  `,
})
export class CellsDialog extends Dialog<CellsDialogData, boolean> {
  static readonly size = { width: '860px', maxWidth: '94vw' };
}
