import { CountedPipe } from '../../../ui/counted-pipe';
import { ChangeDetectionStrategy, Component, computed, signal } from '@angular/core';
import { MatDialogModule } from '@angular/material/dialog';
import {
  BULK_COMMANDS,
  bulkTexts,
  counted,
  planCells,
  type BulkCommand,
  type CellPlan,
  type FilledKind,
  type FilledRecord,
  type LinkLookup,
  type RecordTables,
} from '@stravel/core';
import { isReadOnly, type TableColumn } from '../table-rows';
import { PreviewCells } from './preview-cells';
import { Dialog } from '../../../ui/dialog';

export interface ChangeDialogData {
  readonly kind: FilledKind;
  readonly records: readonly FilledRecord[];
  readonly columns: readonly TableColumn[];
  readonly tables: RecordTables;
  readonly links: LinkLookup;
}

/** What was agreed to, and in words. */
export interface AgreedChange {
  readonly plan: CellPlan;
  readonly label: string;
}

/** Changes a field of many records at once: set, clear, add to, replace text; with what would become of each. */
@Component({
  selector: 'sv-change-dialog',
  imports: [CountedPipe, MatDialogModule, PreviewCells],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>Change {{ data.records.length }} {{ data.kind === 'level' ? 'levels' : 'entries' }}</h2>
    <mat-dialog-content>
      <div class="form">
        <select class="cell" #field aria-label="Field" cdkFocusInitial (change)="column.set(field.value)">
          @for (one of columns; track one.id) {
            <option [value]="one.id" [selected]="one.id === column()">{{ one.name }}</option>
          }
        </select>
        <select class="cell" #what aria-label="What is done" (change)="command.set($any(what.value))">
          @for (one of commands; track one) {
            <option [selected]="one === command()">{{ one }}</option>
          }
        </select>
        @if (command() !== 'clear') {
          @if (choices(); as choices) {
            <select class="cell" #choice aria-label="Value" (change)="text.set(choice.value)">
              <option value="">choose</option>
              @for (one of choices; track one) {
                <option [selected]="one === text()">{{ one }}</option>
              }
            </select>
          } @else {
            <input class="cell" #value [attr.aria-label]="command() === 'replace text' ? 'Text to look for' : 'Value'" [value]="text()" (input)="text.set(value.value)" />
          }
        }
        @if (command() === 'replace text') {
          <span class="soft">by</span>
          <input class="cell" #other aria-label="Text to put in its place" [value]="by()" (input)="by.set(other.value)" />
        }
      </div>
      <sv-preview-cells [plan]="plan()" [links]="data.links" />
    </mat-dialog-content>
    <mat-dialog-actions>
      <button class="chip" mat-dialog-close>Cancel</button>
      <button class="chip strong" [disabled]="plan().counts.changed === 0" (click)="agree()">
        Change {{ plan().counts.changed | counted: 'value' }}
      </button>
    </mat-dialog-actions>
  `,
  styles: `
    .form {
      display: flex;
      gap: 8px;
      align-items: center;
      padding-top: 4px;
    }
  `,
})
export class ChangeDialog extends Dialog<ChangeDialogData, AgreedChange> {
  static readonly size = { width: '860px', maxWidth: '94vw' };
  readonly commands = BULK_COMMANDS;
  /** Pictures are chosen one by one, what is counted is not written. */
  readonly columns = this.data.columns.filter((column) => !isReadOnly(column) && column.field.type !== 'picture');
  readonly column = signal(this.columns.find(({ own }) => own)?.id ?? this.columns[0].id);
  readonly command = signal<BulkCommand>('set');
  readonly text = signal('');
  readonly by = signal('');
  private readonly chosen = computed(() => this.columns.find(({ id }) => id === this.column()) ?? this.columns[0]);
  /** The values that there are to choose from. */
  readonly choices = computed(() => {
    const { field } = this.chosen();
    if (this.command() === 'replace text') return undefined;
    return field.type === 'choice' ? field.choices : field.type === 'yes/no' ? ['yes', 'no'] : undefined;
  });
  readonly plan = computed(() => {
    const { records, links, tables, kind } = this.data;
    // Nothing typed yet is nothing asked for.
    const isAsked = this.command() === 'clear' || this.text() !== '';
    const texts = isAsked
      ? bulkTexts(records, { column: this.chosen(), command: this.command(), text: this.text(), by: this.by() }, links)
      : [];
    return planCells(tables, kind, texts, links);
  });

  agree(): void {
    const plan = this.plan();
    this.dialog.close({
      plan,
      label: `${this.command()} ${this.chosen().name}: ${counted(plan.counts.changed, 'value')}`,
    });
  }
}
