import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import { writeCsv } from '@stravel/core';
import { saveCsv, saveFile } from './save-file';
import type { ThemedChart } from './themed-chart';

/** A button whose menu saves what stands beside it: a table as CSV, a chart as PNG. */
@Component({
  selector: 'sv-save-menu',
  imports: [MatMenuModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<button class="plain" [matMenuTriggerFor]="menu" [attr.aria-label]="title()" [title]="title()">⋯</button>
    <mat-menu #menu="matMenu">
      @if (rows()) {
        <button mat-menu-item (click)="saveRows()">Export {{ tableName() }} as CSV</button>
      }
      @if (hasChart()) {
        <button mat-menu-item [disabled]="!chart()" (click)="saveChart()">Save chart as PNG</button>
      }
    </mat-menu>`,
})
export class SaveMenu {
  /** What is saved, for the name of the file. */
  readonly name = input.required<string>();
  readonly tableName = input('table');
  /** The rows of the table with their head; asked for only when they are saved. */
  readonly rows = input<() => readonly (readonly string[])[]>();
  readonly hasChart = input(true);
  /** Undefined while it is not shown. */
  readonly chart = input<ThemedChart>();
  readonly title = computed(
    () => `Save ${[...(this.rows() ? [this.tableName()] : []), ...(this.hasChart() ? ['chart'] : [])].join(' or ')}`,
  );

  saveRows(): void {
    const rows = this.rows();
    if (rows) saveCsv(this.name(), writeCsv(rows()));
  }

  async saveChart(): Promise<void> {
    const picture = await this.chart()?.png();
    if (picture) saveFile(this.name(), 'png', picture);
  }
}
