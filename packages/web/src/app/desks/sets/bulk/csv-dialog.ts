import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatDialogModule } from '@angular/material/dialog';
import {
  FORMATS,
  MATCH_BY,
  RECORDS_DOCUMENT,
  acceptOf,
  counted,
  type CellColumn,
  type Field,
  type ImportPlan,
  type LevelSet,
  type MatchBy,
  type Operation,
  type RecordTables,
} from '@stravel/core';
import { faultOfFile } from '../../../ui/chosen-file';
import { Compute } from '../../../compute/compute';
import { WorkInHand } from '../../../compute/work-in-hand';
import { create, newId } from '../../../edits/operations';
import { guessMapping, mappingTargets, type MappingTarget } from './csv-mapping';
import { fieldsForColumns } from './new-fields';
import { Dialog } from '../../../ui/dialog';

export interface CsvDialogData {
  readonly register: string | null;
  readonly columns: readonly CellColumn[];
  readonly tables: RecordTables;
  readonly sets: readonly LevelSet[];
}

export interface CsvDecision {
  readonly operations: readonly Operation[];
  readonly count: number;
}

const MAX_SHOWN = 200;

const TABLES = ['csv'] as const;

/** Takes a CSV file into a table: which column goes where, how rows find their records, and what it would do. */
@Component({
  selector: 'sv-csv-dialog',
  imports: [MatDialogModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './csv-dialog.html',
  styleUrl: './preview-rows.scss',
})
export class CsvDialog extends Dialog<CsvDialogData, CsvDecision> {
  static readonly size = { width: '900px', maxWidth: '94vw' };
  readonly tableFiles = acceptOf(TABLES);
  private readonly compute = inject(Compute);
  readonly work = new WorkInHand();
  /** Choice of a column that becomes a field. */
  readonly newField = '+';
  private readonly known = mappingTargets(this.data.columns, this.data.register === null);
  private readonly made = signal<readonly Field[]>([]);
  readonly matches: readonly MatchBy[] =
    this.data.register === null ? MATCH_BY : MATCH_BY.filter((by) => by !== 'code' && by !== 'key');
  readonly fileName = signal('');
  readonly rows = signal<readonly (readonly string[])[]>([]);
  readonly mapping = signal<readonly string[]>([]);
  readonly matchBy = signal<MatchBy>('name');
  readonly set = signal(this.data.sets.at(0)?.id ?? null);
  /** New fields that columns go into. */
  readonly added = computed(() => this.made().filter(({ key }) => this.mapping().includes(`values.${key}`)));
  readonly newFields = computed(() =>
    this.added()
      .map(({ name, type }) => `${name} (${type})`)
      .join(', '),
  );
  readonly targets = computed((): MappingTarget[] => [
    ...this.known,
    ...this.added().map((field): MappingTarget => {
      const path = `values.${field.key}`;
      return { key: path, name: `${field.name}, new`, column: { path, field } };
    }),
  ]);
  /** Columns with values that go into nothing. */
  readonly unmapped = computed(() =>
    this.header().flatMap((_word, i) => (this.mapping()[i] === '' && this.sample()[i] !== '' ? [i] : [])),
  );
  /** Whether a column says in which set each level stands. */
  readonly namesSets = computed(() => this.mapping().includes('set'));
  readonly plan = signal<ImportPlan | undefined>(undefined);
  readonly header = computed(() => this.rows().at(0) ?? []);
  readonly sample = computed(() =>
    this.header().map((_word, c) =>
      this.rows()
        .slice(1, 4)
        .map((row) => row[c] ?? '')
        .filter((cell) => cell !== '')
        .join(' · '),
    ),
  );
  readonly matchless = computed(
    () => !this.mapping().some((key) => key === (this.matchBy() === 'id' ? 'id' : this.matchBy())),
  );
  readonly shown = computed(() => {
    const rows = this.plan()?.rows.filter(({ outcome }) => outcome !== 'unchanged') ?? [];
    return {
      rows: [
        ...rows.filter(({ outcome }) => outcome === 'refused'),
        ...rows.filter(({ outcome }) => outcome !== 'refused'),
      ].slice(0, MAX_SHOWN),
      more: Math.max(0, rows.length - MAX_SHOWN),
    };
  });

  async read(file: File | undefined): Promise<void> {
    if (!file) return;
    this.fileName.set(file.name);
    this.plan.set(undefined);
    this.rows.set([]);
    const rows = await this.work.do('reading the file', async () => {
      const fault = await faultOfFile(file, TABLES);
      if (fault) throw new Error(fault);
      return this.work.keep(this.compute.run(FORMATS.csv.task, new Uint8Array(await file.arrayBuffer())));
    });
    if (!rows) return;
    this.rows.set(rows);
    this.made.set([]);
    this.mapping.set(guessMapping(rows[0], this.known));
    this.matchBy.set(this.mapping().includes('id') ? 'id' : 'name');
    await this.replan();
  }

  /** Makes a field of each of some columns. */
  async addFields(columns: readonly number[]): Promise<void> {
    const [header, ...rows] = this.rows();
    const { register, tables } = this.data;
    const fields = fieldsForColumns(
      columns.map((at) => ({ at, title: header[at], cells: rows.map((row) => row[at] ?? '') })),
      { field: { ...tables.field, ...byId(this.added()) } },
      register,
    );
    this.made.set([...this.added(), ...fields]);
    this.mapping.update((mapping) =>
      mapping.map((one, i) => (columns.includes(i) ? `values.${fields[columns.indexOf(i)].key}` : one)),
    );
    await this.replan();
  }

  async map(at: number, key: string): Promise<void> {
    if (key === this.newField) {
      await this.addFields([at]);
      return;
    }
    this.mapping.update((mapping) => mapping.map((one, i) => (i === at ? key : one === key ? '' : one)));
    await this.replan();
  }

  async match(by: MatchBy): Promise<void> {
    this.matchBy.set(by);
    await this.replan();
  }

  async into(set: string | null): Promise<void> {
    this.set.set(set);
    await this.replan();
  }

  readonly takes = computed(() => {
    const counts = this.plan()?.counts;
    const rows = counts ? counts.new + counts.changed : 0;
    const fields = this.added().length;
    const parts = [...(rows > 0 ? [counted(rows, 'row')] : []), ...(fields > 0 ? [counted(fields, 'field')] : [])];
    return ['Import', parts.join(' and ')].join(' ').trim();
  });
  readonly canTake = computed(() => {
    const plan = this.plan();
    return plan !== undefined && (plan.operations.length > 0 || this.added().length > 0);
  });

  take(): void {
    const plan = this.plan();
    if (!plan) return;
    const fields = this.added().map((field) => create(RECORDS_DOCUMENT, 'field', field));
    this.dialog.close({ operations: [...fields, ...plan.operations], count: plan.counts.new + plan.counts.changed });
  }

  private async replan(): Promise<void> {
    const { register, tables } = this.data;
    const [, ...rows] = this.rows();
    const mapping = this.mapping().map((key) => this.targets().find((target) => target.key === key)?.column ?? null);
    this.plan.set(undefined);
    const input = {
      tables: { ...tables, field: { ...tables.field, ...byId(this.added()) } },
      register,
      rows,
      mapping,
      matchBy: this.matchBy(),
      set: this.set(),
      newIds: rows.map(() => newId()),
    };
    this.plan.set(
      await this.work.do('working out what it would do', () => this.work.keep(this.compute.run('plan-import', input))),
    );
  }
}

function byId(fields: readonly Field[]): Record<string, Field> {
  return Object.fromEntries(fields.map((field) => [field.id, field]));
}
