import { ChangeDetectionStrategy, Component, computed, signal } from '@angular/core';
import { MatDialogModule } from '@angular/material/dialog';
import { HOLE, readSquares, type ReadSquares, type SquareCode } from '@stravel/core';
import { Dialog } from '../../../../ui/dialog';

export interface TileTextData {
  readonly name: string;
  readonly text: string;
  readonly legend: readonly SquareCode[];
}

const MAX_FAULTS_SHOWN = 30;

/** A tile floor as text: pasted from a spreadsheet, and copied out the same way. */
@Component({
  selector: 'sv-tile-text-dialog',
  imports: [MatDialogModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>{{ data.name }} as text</h2>
    <mat-dialog-content>
      <p class="soft">One line per row, tabs between squares, as a spreadsheet copies them.</p>
      <textarea #box class="cell mono" rows="14" aria-label="Squares" spellcheck="false" cdkFocusInitial [value]="data.text" (input)="text.set(box.value)"></textarea>
      <p aria-live="polite">{{ tally() }}</p>
      @if (read().faults.length > 0) {
        <ul class="near" tabindex="0" role="group" aria-label="Refused squares">
          @for (fault of shown(); track $index) {
            <li>Row {{ fault.row }}, column {{ fault.column }}: {{ fault.message }}</li>
          }
        </ul>
        @if (read().faults.length > shown().length) {
          <p class="soft">and {{ read().faults.length - shown().length }} more</p>
        }
      }
    </mat-dialog-content>
    <mat-dialog-actions>
      <button class="chip" (click)="copy()">Copy text</button>
      <button class="chip" mat-dialog-close>Cancel</button>
      <button class="chip strong" [disabled]="text() === data.text" (click)="dialog.close(read())">
        {{ read().faults.length > 0 ? 'Apply; refused squares become holes' : 'Apply text' }}
      </button>
    </mat-dialog-actions>
  `,
  styles: `
    textarea {
      width: 100%;
      white-space: pre;
      tab-size: 6;
    }
    ul {
      max-height: 120px;
      overflow: auto;
      margin: 4px 0;
      padding-left: 20px;
    }
  `,
})
export class TileTextDialog extends Dialog<TileTextData, ReadSquares> {
  static readonly size = { width: '720px', maxWidth: '94vw' };
  readonly text = signal(this.data.text);
  readonly read = computed(() => readSquares(this.text(), this.data.legend));
  readonly shown = computed(() => this.read().faults.slice(0, MAX_FAULTS_SHOWN));
  readonly tally = computed(() => {
    const { rows, columns, faults } = this.read();
    const names = new Map(this.data.legend.map(({ code, name }) => [code, name]));
    const counts = new Map<string, number>();
    for (const cell of rows.flat()) {
      const name = cell === HOLE ? 'holes' : (names.get(/^[A-Za-z0-9]+/.exec(cell)?.[0] ?? '') ?? cell);
      counts.set(name, (counts.get(name) ?? 0) + 1);
    }
    const parts = [...counts].sort((a, b) => b[1] - a[1]).map(([name, count]) => `${count} ${name}`);
    return `${columns} by ${rows.length}: ${parts.slice(0, 8).join(', ')}${faults.length > 0 ? ` · ${faults.length} refused` : ''}`;
  });

  copy(): void {
    void navigator.clipboard?.writeText(this.text());
  }
}
