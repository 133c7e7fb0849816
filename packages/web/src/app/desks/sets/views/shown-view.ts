import { computed, inject, signal, type Signal } from '@angular/core';
import { Store } from '@ngrx/store';
import { PLAIN_VIEW, RECORDS_DOCUMENT, applyView, compareOrdered, ordersBetween, type FilledRecord, type TableView, type ViewCell, type ViewRules } from '@stravel/core';
import { recordsFeature } from '../../../document/records/records-store';
import { EditLog } from '../../../edits/edit-log';
import { create, newId, remove, setRecordField } from '../../../edits/operations';
import { FieldContext } from '../fields/field-context';
import { cellText, cellValue, type TableColumn } from '../table-rows';

/** The view through which a page shows a table, and the views that are kept for it. To be made where injection works. */
export class ShownView {
  private readonly edits = inject(EditLog);
  private readonly context = inject(FieldContext);
  private readonly tables = inject(Store).selectSignal(recordsFeature.selectTables);

  readonly rules = signal<ViewRules>(PLAIN_VIEW);
  readonly chosen = signal('');
  readonly isOpen = signal(false);
  readonly views = computed(() =>
    Object.values(this.tables().tableView)
      .filter(({ register }) => register === this.register())
      .sort(compareOrdered),
  );
  readonly columns = computed(() => this.allColumns().filter(({ id }) => !this.rules().hidden.includes(id)));
  /** In words, for the button that opens it. */
  readonly says = computed(() => {
    const { conditions, sorts, hidden } = this.rules();
    const count = conditions.length + sorts.length + hidden.length;
    const name = this.views().find(({ id }) => id === this.chosen())?.name;
    return name ?? (count === 0 ? 'View' : `View · ${count}`);
  });

  constructor(
    private readonly register: Signal<string | null>,
    private readonly allColumns: Signal<readonly TableColumn[]>,
  ) {}

  /** Records that the view shows, in its order. */
  apply<T extends FilledRecord>(records: readonly T[]): T[] {
    const columns = new Map(this.allColumns().map((column) => [column.id, column]));
    const [links, figureOf] = [this.context.links(), this.context.figureOf()];
    const read = (record: T, id: string): ViewCell | undefined => {
      const column = columns.get(id);
      if (!column) return undefined;
      const value = cellValue(record, column, figureOf);
      return { value, text: value === null || value === '' ? '' : cellText(value, column, links), type: column.field.type };
    };
    return applyView(records, this.rules(), read);
  }

  choose(id: string): void {
    this.chosen.set(id);
    const view = this.views().find((one) => one.id === id);
    if (view) this.rules.set({ join: view.join, conditions: view.conditions, sorts: view.sorts, hidden: view.hidden });
  }

  async keep(name: string): Promise<void> {
    const [order] = ordersBetween(this.views().at(-1)?.order ?? null, null);
    const view: TableView = { ...this.rules(), id: newId(), name, order, register: this.register() };
    await this.edits.commit(`keep the view ${name}`, [create(RECORDS_DOCUMENT, 'tableView', view)]);
    this.chosen.set(view.id);
  }

  async replace(view: TableView): Promise<void> {
    const rules = this.rules();
    await this.edits.commit(
      `change the view ${view.name}`,
      (['join', 'conditions', 'sorts', 'hidden'] as const).map((part) => setRecordField('tableView', view, part, rules[part] as never)),
    );
  }

  async drop(view: TableView): Promise<void> {
    await this.edits.commit(`delete the view ${view.name}`, [remove(RECORDS_DOCUMENT, 'tableView', view)]);
    this.chosen.set('');
  }
}
