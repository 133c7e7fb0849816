import { computed, inject, signal, type Signal } from '@angular/core';
import { Store } from '@ngrx/store';
import {
  PLAIN_VIEW,
  RECORDS_DOCUMENT,
  applyView,
  compareOrdered,
  equalJson,
  ordersBetween,
  plainJson,
  type ColumnWidth,
  type FilledRecord,
  type TableView,
  type ViewCell,
  type ViewRules,
} from '@stravel/core';
import { recordsFeature } from '../../../document/records/records-store';
import { EditLog } from '../../../edits/edit-log';
import { create, newId, remove, setRecordField } from '../../../edits/operations';
import { FieldContext } from '../fields/field-context';
import { cellText, cellValue, type TableColumn } from '../table-rows';

const RULE_PARTS = ['join', 'conditions', 'sorts', 'hidden', 'columns', 'widths', 'frozen', 'group'] as const;

/** Rules and nothing else, nothing left out. */
function rulesOf({ join, conditions, sorts, hidden, columns, widths, frozen, group }: ViewRules): Required<ViewRules> {
  return {
    join,
    conditions,
    sorts,
    hidden,
    columns: columns ?? null,
    widths: widths ?? null,
    frozen: frozen ?? null,
    group: group ?? null,
  };
}

/** Columns in the order of a view; those that it does not name keep their place after the one before them. */
export function inViewOrder(
  columns: readonly TableColumn[],
  { columns: wanted }: Pick<ViewRules, 'columns'>,
): TableColumn[] {
  if (!wanted || wanted.length === 0) return [...columns];
  const place = new Map(wanted.map((id, i) => [id, i]));
  let last = -1;
  const keyed = columns.map((column, i) => {
    last = place.get(column.id) ?? last;
    return { column, key: place.get(column.id) ?? last + 0.5, i };
  });
  return keyed.sort((a, b) => a.key - b.key || a.i - b.i).map(({ column }) => column);
}

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
  /** Those that are shown, in the view's order and widths. */
  readonly columns = computed((): readonly TableColumn[] => {
    const { hidden, widths } = this.rules();
    const pixels = new Map((widths ?? []).map((one) => [one.column, one.pixels]));
    return inViewOrder(this.allColumns(), this.rules())
      .filter(({ id }) => !hidden.includes(id))
      .map((column) => (pixels.has(column.id) ? { ...column, width: `${pixels.get(column.id)}px` } : column));
  });
  readonly frozen = computed(() => Math.min(this.rules().frozen ?? 0, this.columns().length));
  /** What the lines are gathered by: what a record holds in the view's column, in words. Undefined when by set. */
  readonly groupOf = computed((): ((record: FilledRecord) => string) | undefined => {
    const { group } = this.rules();
    const column = group ? this.allColumns().find(({ id }) => id === group) : undefined;
    if (!column) return undefined;
    const [links, figureOf] = [this.context.links(), this.context.figureOf()];
    return (record) => {
      const value = cellValue(record, column, figureOf);
      return value === null || value === '' ? '' : cellText(value, column, links);
    };
  });
  /** In words, for the button that opens it. */
  readonly text = computed(() => {
    const { conditions, sorts, hidden, group } = this.rules();
    const count = conditions.length + sorts.length + hidden.length + (group ? 1 : 0);
    const name = this.views().find(({ id }) => id === this.chosen())?.name;
    return name ?? (count === 0 ? 'Saved views' : `View · ${count}`);
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
      return {
        value,
        type: column.field.type,
        // Numbers are compared as numbers: of ten thousand nobody reads the text.
        get text() {
          return value === null || value === '' ? '' : cellText(value, column, links);
        },
      };
    };
    return applyView(records, this.rules(), read);
  }

  /** Gives a column a width of one's own. */
  size({ column, pixels }: ColumnWidth): void {
    this.rules.update((rules) => ({
      ...rules,
      widths: [...(rules.widths ?? []).filter((one) => one.column !== column), { column, pixels }],
    }));
  }

  choose(id: string): void {
    this.chosen.set(id);
    const view = this.views().find((one) => one.id === id);
    if (view) this.rules.set(rulesOf(view));
  }

  async keep(name: string): Promise<void> {
    const [order] = ordersBetween(this.views().at(-1)?.order ?? null, null);
    const view: TableView = { ...rulesOf(this.rules()), id: newId(), name, order, register: this.register() };
    await this.edits.commit(`save the view ${name}`, [create(RECORDS_DOCUMENT, 'tableView', view)]);
    this.chosen.set(view.id);
  }

  async replace(view: TableView): Promise<void> {
    const rules = rulesOf(this.rules());
    await this.edits.commit(
      `change the view ${view.name}`,
      RULE_PARTS.filter((part) => !equalJson(plainJson(view[part] ?? null), plainJson(rules[part]))).map((part) =>
        setRecordField('tableView', view, part, plainJson(rules[part])),
      ),
    );
  }

  async drop(view: TableView): Promise<void> {
    await this.edits.commit(`delete the view ${view.name}`, [remove(RECORDS_DOCUMENT, 'tableView', view)]);
    this.chosen.set('');
  }
}
