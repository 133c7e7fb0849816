import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { fieldText, type CellPlan, type LinkLookup } from '@stravel/core';

export interface CellsDialogData {
  readonly title: string;
  readonly plan: CellPlan;
  readonly links: LinkLookup;
  /** Cells of what was pasted that reach beyond the table. */
  readonly beyond: number;
}

const MOST_SHOWN = 200;

/** Shows what would be written into many cells, and what is refused and why. */
@Component({
  selector: 'sv-cells-dialog',
  imports: [MatDialogModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>{{ data.title }}</h2>
    <mat-dialog-content>
      <p>
        <span class="mono">{{ data.plan.counts.changed }}</span> change · <span class="mono">{{ data.plan.counts.unchanged }}</span> stay ·
        <span [class.over]="data.plan.counts.refused > 0"
          ><span class="mono">{{ data.plan.counts.refused }}</span> refused</span
        >
        @if (data.beyond > 0) {
          ·
          <span class="near"
            ><span class="mono">{{ data.beyond }}</span> beyond the table, left out</span
          >
        }
      </p>
      <div class="rows" tabindex="0" role="region" aria-label="Cells">
        <table>
          <thead>
            <tr>
              <th>Of</th>
              <th>Field</th>
              <th>Is</th>
              <th>Becomes</th>
              <th></th>
            </tr>
          </thead>
          <tbody>
            @for (row of shown; track $index) {
              <tr>
                <td>{{ row.name }}</td>
                <td>{{ row.field }}</td>
                <td class="mono">{{ row.before }}</td>
                <td class="mono" [class.over]="row.why">{{ row.after }}</td>
                <td class="over">{{ row.why }}</td>
              </tr>
            }
          </tbody>
        </table>
        @if (more > 0) {
          <p class="soft">… and {{ more }} more.</p>
        }
      </div>
    </mat-dialog-content>
    <mat-dialog-actions>
      <button class="chip" mat-dialog-close>Cancel</button>
      <button class="chip strong" cdkFocusInitial [disabled]="data.plan.counts.changed === 0" (click)="dialog.close(true)">
        Write {{ data.plan.counts.changed }} cell{{ data.plan.counts.changed === 1 ? '' : 's' }}
      </button>
    </mat-dialog-actions>
  `,
  styleUrl: './preview-rows.scss',
})
export class CellsDialog {
  readonly data = inject<CellsDialogData>(MAT_DIALOG_DATA);
  readonly dialog = inject<MatDialogRef<CellsDialog, boolean>>(MatDialogRef);
  /** Refused cells first: they are what one has to look at. */
  private readonly told = [...this.data.plan.cells.filter(({ outcome }) => outcome === 'refused'), ...this.data.plan.cells.filter(({ outcome }) => outcome === 'changed')];
  readonly shown = this.told.slice(0, MOST_SHOWN).map(({ record, column, before, after, text, outcome, why }) => ({
    name: record.name,
    field: column.field.name,
    before: fieldText(column.field, before, this.data.links) || '—',
    after: outcome === 'refused' ? text : fieldText(column.field, after, this.data.links) || '—',
    why,
  }));
  readonly more = this.told.length - this.shown.length;
}
