import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatDialogModule } from '@angular/material/dialog';
import {
  FORMATS,
  MATCH_BY,
  acceptOf,
  counted,
  type CellColumn,
  type ImportPlan,
  type LevelSet,
  type MatchBy,
  type Operation,
  type RecordTables,
} from '@stravel/core';
import { faultOfFile } from '../../../ui/chosen-file';
import { Compute } from '../../../compute/compute';
import { WorkInHand } from '../../../compute/work-in-hand';
import { newId } from '../../../edits/operations';
import { guessMapping, mappingTargets } from './csv-mapping';
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
  readonly targets = mappingTargets(this.data.columns, this.data.register === null);
  readonly matches: readonly MatchBy[] =
    this.data.register === null ? MATCH_BY : MATCH_BY.filter((by) => by !== 'code' && by !== 'key');
  readonly fileName = signal('');
  readonly rows = signal<readonly (readonly string[])[]>([]);
  readonly mapping = signal<readonly string[]>([]);
  readonly matchBy = signal<MatchBy>('name');
  readonly set = signal(this.data.sets.at(0)?.id ?? null);
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
    this.mapping.set(guessMapping(rows[0], this.targets));
    this.matchBy.set(this.mapping().includes('id') ? 'id' : 'name');
    await this.replan();
  }

  async map(at: number, key: string): Promise<void> {
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
    return rows === 0 ? 'Import' : `Import ${counted(rows, 'row')}`;
  });

  take(): void {
    const plan = this.plan();
    if (plan) this.dialog.close({ operations: plan.operations, count: plan.counts.new + plan.counts.changed });
  }

  private async replan(): Promise<void> {
    const { register, tables } = this.data;
    const [, ...rows] = this.rows();
    const mapping = this.mapping().map((key) => this.targets.find((target) => target.key === key)?.column ?? null);
    this.plan.set(undefined);
    const input = {
      tables,
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
