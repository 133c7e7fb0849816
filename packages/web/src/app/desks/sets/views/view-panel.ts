import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import {
  CONDITION_TESTS,
  MIN_COLUMN_PIXELS,
  MAX_COLUMN_PIXELS,
  PLAIN_VIEW,
  type ConditionTest,
  type FieldType,
  type TableView,
  type ViewCondition,
  type ViewRules,
  type ViewSort,
} from '@stravel/core';
import type { TableColumn } from '../table-rows';
import { inViewOrder } from './shown-view';

const GROUPABLE: readonly FieldType[] = ['choice', 'yes/no', 'level', 'entry', 'date', 'text', 'whole number'];

/** Conditions, order and columns of a table, and the views that were kept under names. */
@Component({
  selector: 'sv-view-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './view-panel.html',
  styleUrl: './view-panel.scss',
})
export class ViewPanel {
  /** All columns, also those that are not shown. */
  readonly columns = input.required<readonly TableColumn[]>();
  readonly rules = input.required<ViewRules>();
  readonly views = input.required<readonly TableView[]>();
  /** Id of the view that was chosen last; '' for none. */
  readonly chosen = input('');
  /** How lines are gathered while no column says so. */
  readonly plainGroup = input('not grouped');
  readonly changed = output<ViewRules>();
  readonly viewChosen = output<string>();
  readonly kept = output<string>();
  readonly replaced = output<TableView>();
  readonly dropped = output<TableView>();

  readonly tests = CONDITION_TESTS;
  readonly choice = computed(() => this.views().find(({ id }) => id === this.chosen()));
  readonly isPlain = computed(() => {
    const { conditions, sorts, hidden, columns, widths, frozen, group } = this.rules();
    return (
      conditions.length +
        sorts.length +
        hidden.length +
        (columns?.length ?? 0) +
        (widths?.length ?? 0) +
        (frozen ?? 0) ===
        0 && !group
    );
  });
  readonly ordered = computed(() => inViewOrder(this.columns(), this.rules()));
  /** Columns by whose values lines may be gathered: those that many records share. */
  readonly groupable = computed(() =>
    this.columns().filter(({ field, id }) => !field.list && (GROUPABLE.includes(field.type) || id === 'ready')),
  );
  readonly widths = computed(() => new Map((this.rules().widths ?? []).map(({ column, pixels }) => [column, pixels])));

  change(part: Partial<ViewRules>): void {
    this.changed.emit({ ...this.rules(), ...part });
  }

  addCondition(): void {
    this.change({
      conditions: [...this.rules().conditions, { column: this.columns()[0].id, test: 'contains', text: '' }],
    });
  }

  setCondition(at: number, part: Partial<ViewCondition>): void {
    this.change({ conditions: this.rules().conditions.map((one, i) => (i === at ? { ...one, ...part } : one)) });
  }

  dropCondition(at: number): void {
    this.change({ conditions: this.rules().conditions.filter((_one, i) => i !== at) });
  }

  needsText(test: ConditionTest): boolean {
    return test !== 'is filled' && test !== 'is empty';
  }

  addSort(): void {
    const free = this.columns().find(({ id }) => !this.rules().sorts.some(({ column }) => column === id));
    if (free) this.change({ sorts: [...this.rules().sorts, { column: free.id, descending: false }] });
  }

  setSort(at: number, part: Partial<ViewSort>): void {
    this.change({ sorts: this.rules().sorts.map((one, i) => (i === at ? { ...one, ...part } : one)) });
  }

  dropSort(at: number): void {
    this.change({ sorts: this.rules().sorts.filter((_one, i) => i !== at) });
  }

  toggleColumn(id: string): void {
    const { hidden } = this.rules();
    this.change({ hidden: hidden.includes(id) ? hidden.filter((one) => one !== id) : [...hidden, id] });
  }

  /** Moves a column one place earlier or later. */
  moveColumn(id: string, by: -1 | 1): void {
    const order = this.ordered().map((column) => column.id);
    const at = order.indexOf(id);
    const to = at + by;
    // The name comes first: without it no line can be told from another.
    if (at < 1 || to < 1 || to >= order.length) return;
    [order[at], order[to]] = [order[to], order[at]];
    this.change({ columns: order });
  }

  /** Gives a column a width; nothing typed gives it back its own. */
  setWidth(id: string, text: string): void {
    const rest = (this.rules().widths ?? []).filter(({ column }) => column !== id);
    const pixels = Math.round(Number(text));
    const isWidth = text.trim() !== '' && Number.isFinite(pixels);
    this.change({
      widths: isWidth
        ? [...rest, { column: id, pixels: Math.min(MAX_COLUMN_PIXELS, Math.max(MIN_COLUMN_PIXELS, pixels)) }]
        : rest,
    });
  }

  clear(): void {
    this.changed.emit(PLAIN_VIEW);
    this.viewChosen.emit('');
  }

  keep(box: HTMLInputElement): void {
    const name = box.value.trim();
    if (name === '') return;
    this.kept.emit(name);
    box.value = '';
  }
}
