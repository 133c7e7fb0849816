import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { CONDITION_TESTS, PLAIN_VIEW, type ConditionTest, type TableView, type ViewCondition, type ViewRules, type ViewSort } from '@stravel/core';
import type { TableColumn } from '../table-rows';

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
  readonly changed = output<ViewRules>();
  readonly viewChosen = output<string>();
  readonly kept = output<string>();
  readonly replaced = output<TableView>();
  readonly dropped = output<TableView>();

  readonly tests = CONDITION_TESTS;
  readonly choice = computed(() => this.views().find(({ id }) => id === this.chosen()));
  readonly isPlain = computed(() => this.rules().conditions.length + this.rules().sorts.length + this.rules().hidden.length === 0);

  change(part: Partial<ViewRules>): void {
    this.changed.emit({ ...this.rules(), ...part });
  }

  addCondition(): void {
    this.change({ conditions: [...this.rules().conditions, { column: this.columns()[0].id, test: 'contains', text: '' }] });
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
