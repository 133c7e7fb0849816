import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { Dialogs } from '../../../ui/dialogs';
import { MatMenuModule } from '@angular/material/menu';
import { Store } from '@ngrx/store';
import {
  counted,
  PLAIN_VIEW,
  RECORDS_DOCUMENT,
  entriesOf,
  fieldsOf,
  heldAt,
  linkUses,
  ordersBetween,
  type Entry,
  type FieldValue,
  type FilledRecord,
  type Register,
} from '@stravel/core';
import { Addresses } from '../../../addresses';
import { recordsFeature } from '../../../document/records/records-store';
import { EditLog } from '../../../edits/edit-log';
import { remove, setRecordField } from '../../../edits/operations';
import { Workspace } from '../../../workspace';
import { CellWriter } from '../bulk/cell-writer';
import { CsvTransfer } from '../bulk/csv-transfer';
import { FieldContext } from '../fields/field-context';
import { FieldDialogs } from '../fields/field-dialogs';
import { RecordTable, type RowRequest } from '../parts/record-table';
import { PictureMaker } from '../../../bakes/pictures/picture-maker';
import { RegisterMaker } from './register-maker';
import { SetsTabs } from '../parts/sets-tabs';
import type { ActiveCell } from '../store/sets-store';
import { ShownView } from '../views/shown-view';
import { ViewPanel } from '../views/view-panel';
import { ViewsMenu } from '../views/views-menu';
import { entryColumns, plainRows, type TableColumn, type TableRow } from '../table-rows';
import { deleteEntries, duplicateEntries, newEntry, stepEntry } from './register-edits';
import type { UsesData } from './uses-dialog';
import { SETS_SERVICES } from '../services';
import { flipped } from '../../../ui/tick-range';

const NONE: ReadonlySet<string> = new Set();

/** Any register, shown from its fields. */
@Component({
  selector: 'sv-register-page',
  imports: [MatMenuModule, RecordTable, SetsTabs, ViewPanel, ViewsMenu],
  providers: [SETS_SERVICES],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './register-page.html',
  styleUrl: '../sets-page.scss',
})
export class RegisterPage {
  readonly registers = inject(RegisterMaker);
  private readonly edits = inject(EditLog);
  private readonly dialogs = inject(Dialogs);
  private readonly addresses = inject(Addresses);
  private readonly workspace = inject(Workspace);
  readonly context = inject(FieldContext);
  readonly fieldDialogs = inject(FieldDialogs);
  readonly writer = inject(CellWriter);
  readonly pictures = inject(PictureMaker);
  private readonly csv = inject(CsvTransfer);
  private readonly tables = inject(Store).selectSignal(recordsFeature.selectTables);

  /** From the address. */
  readonly id = input.required<string>();
  /** Entry and column to stand on, from the address. */
  readonly entry = input<string>();
  readonly column = input<string>();
  /** Field to open, from the address. */
  readonly field = input<string>();
  readonly none = NONE;
  readonly chosen = signal(NONE);
  readonly flip = flipped;
  readonly folded = signal(NONE);
  readonly active = signal<ActiveCell | null>(null);
  readonly editing = signal(false);
  readonly register = computed(() => heldAt(this.tables().register, this.id()));
  private readonly entries = computed(() => entriesOf(this.tables(), this.id()));
  readonly allColumns = computed(() => entryColumns(fieldsOf(this.tables(), this.id())));
  readonly view = new ShownView(this.id, this.allColumns);
  readonly columns = this.view.columns;
  readonly rows = computed(() => {
    const numbers = new Map(this.entries().map(({ id }, i) => [id, String(i + 1)]));
    return plainRows(
      this.view.apply(this.entries()),
      ({ id }) => numbers.get(id) ?? '',
      this.view.groupOf(),
      this.folded(),
    );
  });

  constructor() {
    effect(() => {
      const field = this.field();
      if (field !== undefined) untracked(() => this.fieldDialogs.editById(field));
    });
    effect(() => {
      this.id();
      this.chosen.set(NONE);
      this.view.rules.set(PLAIN_VIEW);
      this.view.chosen.set('');
      const entry = this.entry();
      this.active.set(entry === undefined ? null : { row: entry, column: this.column() ?? 'name' });
    });
    effect(() => {
      this.workspace.footLeft.set([counted(this.rows().length, 'entry', 'entries')]);
      this.workspace.footRight.set([]);
    });
  }

  takeOut(): void {
    this.csv.takeOut(this.id(), this.allColumns(), this.register()?.name ?? 'entries');
  }

  takeIn(): void {
    this.csv.takeIn(this.id(), this.allColumns());
  }

  async renameRegister(register: Register, field: 'name' | 'help', text: string): Promise<void> {
    if (field === 'name' && text.trim() === '') return;
    if (register[field] !== text.trim())
      await this.edits.commit(`${field} of the register ${register.name}`, [
        setRecordField('register', register, field, text.trim()),
      ]);
  }

  async setKindsOf(register: Register, kindsOf: string): Promise<void> {
    await this.edits.commit(`kinds of ${register.name}`, [
      setRecordField('register', register, 'kindsOf', kindsOf || null),
    ]);
  }

  async addEntry(register: string): Promise<void> {
    const { entry, operations } = newEntry(this.tables(), register, 'New entry');
    await this.edits.commit('new entry', operations);
    this.active.set({ row: entry.id, column: 'name' });
    this.editing.set(true);
  }

  async change({
    record,
    column,
    value,
  }: {
    record: FilledRecord;
    column: TableColumn;
    value: FieldValue;
  }): Promise<void> {
    const together = this.chosen().has(record.id) && column.id !== 'name' ? this.chosenEntries() : [record];
    const label =
      together.length > 1 ? `${column.name} of ${together.length} entries` : `${column.name} of ${record.name}`;
    await this.edits.commit(
      label,
      together.map((one) => setRecordField('entry', one, column.path, column.own ? value : String(value ?? '').trim())),
    );
  }

  changeChosen(): void {
    this.writer.change('entry', this.chosenEntries(), this.allColumns());
  }

  async request({ row, request }: { row: TableRow; request: RowRequest }): Promise<void> {
    const entry = this.tables().entry[row.id];
    if (!entry) return;
    const entries = this.chosen().has(entry.id) ? this.chosenEntries() : [entry];
    if (request === 'uses') this.showUses([entry], false);
    else if (request === 'bin') this.deleteEntries(entries);
    else if (request === 'up' || request === 'down')
      await this.edits.commit(`move ${entry.name}`, stepEntry(this.tables(), entry, request === 'up' ? -1 : 1));
    else if (request === 'duplicate') {
      const { copies, operations } = duplicateEntries(this.tables(), entries);
      await this.edits.commit(
        `duplicate ${entries.length === 1 ? entry.name : `${entries.length} entries`}`,
        operations,
      );
      this.active.set({ row: copies[0].id, column: 'name' });
    }
  }

  async drop({ row, before }: { row: TableRow; before: TableRow | undefined }): Promise<void> {
    if (this.view.rules().sorts.length > 0 || this.view.rules().group) return;
    const entry = this.tables().entry[row.id];
    const rest = this.entries().filter(({ id }) => id !== row.id);
    const found = before ? rest.findIndex(({ id }) => id === before.id) : rest.length;
    const [order] = ordersBetween(rest[found - 1]?.order ?? null, rest[found]?.order ?? null);
    if (entry) await this.edits.commit(`move ${entry.name}`, [setRecordField('entry', entry, 'order', order)]);
  }

  deleteEntries(entries: readonly Entry[]): void {
    this.showUses(entries, true);
  }

  /** Deletes a register that nothing holds any more; else leads to what does. */
  async deleteRegister(register: Register): Promise<void> {
    const tables = this.tables();
    const linking = Object.values(tables.field).filter(
      (field) => field.type === 'entry' && field.target === register.id && field.register !== register.id,
    );
    const entries = entriesOf(tables, register.id);
    if (linking.length > 0) {
      const many = linking.length > 1;
      this.edits.tell(
        `delete ${register.name}`,
        `The ${many ? 'fields' : 'field'} ${linking.map(({ name }) => name).join(', ')} link to it. Change or delete ${many ? 'them' : 'it'} first.`,
      );
      return;
    }
    await this.edits.commit(`delete the register ${register.name}`, [
      ...entries.map((entry) => remove(RECORDS_DOCUMENT, 'entry', entry)),
      ...fieldsOf(tables, register.id).map((field) => remove(RECORDS_DOCUMENT, 'field', field)),
      ...this.view.views().map((view) => remove(RECORDS_DOCUMENT, 'tableView', view)),
      remove(RECORDS_DOCUMENT, 'register', register),
    ]);
    await this.addresses.go(['/sets']);
  }

  chosenEntries(): Entry[] {
    return this.entries().filter(({ id }) => this.chosen().has(id));
  }

  private showUses(entries: readonly Entry[], deletes: boolean): void {
    const ids = new Set(entries.map(({ id }) => id));
    const all = linkUses(this.tables());
    const uses = entries.flatMap(({ id }) => all.get(id) ?? []).filter(({ record }) => !deletes || !ids.has(record.id));
    const data: UsesData = { entries, uses, others: this.entries().filter(({ id }) => !ids.has(id)), deletes };
    void this.dialogs
      .bring(() => import('./uses-dialog').then(({ UsesDialog }) => UsesDialog), data)
      .then((choice) => {
        if (!choice) return;
        void this.edits.commit(
          `delete ${entries.length === 1 ? entries[0].name : `${entries.length} entries`}`,
          deleteEntries(entries, all, choice.replacement),
        );
        this.chosen.set(NONE);
      });
  }
}
