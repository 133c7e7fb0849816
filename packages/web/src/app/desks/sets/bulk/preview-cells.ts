import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { fieldText, type CellPlan, type LinkLookup } from '@stravel/core';

const MAX_SHOWN = 200;

/** What would be written into many cells, and what is refused and why. */
@Component({
  selector: 'sv-preview-cells',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p aria-live="polite">
      <span class="mono">{{ plan().counts.changed }}</span> change · <span class="mono">{{ plan().counts.unchanged }}</span> stay ·
      <span [class.over]="plan().counts.refused > 0"
        ><span class="mono">{{ plan().counts.refused }}</span> refused</span
      >
      @if (beyond() > 0) {
        ·
        <span class="near"
          ><span class="mono">{{ beyond() }}</span> outside the table, left out</span
        >
      }
    </p>
    <div class="rows" tabindex="0" role="region" aria-label="Cells">
      <table>
        <thead>
          <tr>
            <th>Name</th>
            <th>Field</th>
            <th>Now</th>
            <th>After</th>
            <th></th>
          </tr>
        </thead>
        <tbody>
          @for (row of shown(); track $index) {
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
      @if (more() > 0) {
        <p class="soft">… and {{ more() }} more.</p>
      }
    </div>
  `,
  styleUrl: './preview-rows.scss',
})
export class PreviewCells {
  readonly plan = input.required<CellPlan>();
  readonly links = input.required<LinkLookup>();
  /** Cells of what was pasted that reach beyond the table. */
  readonly beyond = input(0);
  /** Refused cells first: they are what one has to look at. */
  private readonly told = computed(() => {
    const { cells } = this.plan();
    return [
      ...cells.filter(({ outcome }) => outcome === 'refused'),
      ...cells.filter(({ outcome }) => outcome === 'changed'),
    ];
  });
  readonly shown = computed(() =>
    this.told()
      .slice(0, MAX_SHOWN)
      .map(({ record, column, before, after, text, outcome, why }) => ({
        name: record.name,
        field: column.field.name,
        before: fieldText(column.field, before, this.links()) || '—',
        after: outcome === 'refused' ? text : fieldText(column.field, after, this.links()) || '—',
        why,
      })),
  );
  readonly more = computed(() => this.told().length - this.shown().length);
}
