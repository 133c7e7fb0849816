import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatDialogModule } from '@angular/material/dialog';
import { Store } from '@ngrx/store';
import { compareOrdered, entriesOf, registersInOrder, type CarriedValue } from '@stravel/core';
import { recordsFeature } from '../../../document/records/records-store';
import { StartHere, type Beginning } from '../../../start-here';
import { Workspace } from '../../../workspace';
import { Dialog } from '../../../ui/dialog';

/** From which level, and with what, one's own tests begin. */
@Component({
  selector: 'sv-start-dialog',
  imports: [MatDialogModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>Start here</h2>
    <mat-dialog-content>
      <p class="soft">For you only: play-throughs and rehearsals start here. The collection's own start is not changed.</p>
      <label
        >Level
        <select class="cell" #level aria-label="Level" cdkFocusInitial (change)="change({ level: level.value })">
          @for (one of levels(); track one.id) {
            <option [value]="one.id" [selected]="one.id === draft().level">{{ one.name }}</option>
          }
        </select>
      </label>
      @if (values().length > 0) {
        <h4>Carried values</h4>
        @for (value of values(); track value.id) {
          <label
            >{{ value.name }}
            <input class="cell mono" #amount type="number" step="any" [attr.aria-label]="value.name" [value]="amountOf(value)" (input)="setValue(value.id, amount.value)" />
          </label>
        }
      }
      @for (register of registers(); track register.id) {
        <details [open]="(draft().entries[register.id]?.length ?? 0) > 0">
          <summary>
            {{ register.name }} <span class="soft">{{ draft().entries[register.id]?.length ?? 0 }} of {{ register.entries.length }} held</span>
          </summary>
          <div class="many">
            @for (entry of register.entries; track entry.id) {
              <label><input type="checkbox" [checked]="has(register.id, entry.id)" (change)="toggle(register.id, entry.id)" /> {{ entry.name }}</label>
            }
          </div>
        </details>
      }
    </mat-dialog-content>
    <mat-dialog-actions>
      <button class="chip" mat-dialog-close>Cancel</button>
      <button class="chip" [disabled]="!start.beginning()" (click)="start.set(undefined); dialog.close()">Use the default start</button>
      <button class="chip strong" (click)="keep()">Start here</button>
    </mat-dialog-actions>
  `,
  styles: `
    label {
      display: flex;
      gap: 8px;
      align-items: center;
      min-height: 28px;
    }
    input[type='number'] {
      width: 110px;
    }
    h4 {
      margin: 10px 0 2px;
    }
    .many {
      display: grid;
      grid-template-columns: 1fr 1fr;
      padding-left: 14px;
    }
    summary {
      min-height: 26px;
      cursor: pointer;
    }
  `,
})
export class StartDialog extends Dialog<string | undefined> {
  static readonly size = { width: '560px' };
  readonly start = inject(StartHere);
  private readonly workspace = inject(Workspace);
  private readonly store = inject(Store);
  private readonly tables = this.store.selectSignal(recordsFeature.selectTables);
  readonly levels = this.store.selectSignal(recordsFeature.selectLevels);
  readonly values = computed(() => Object.values(this.tables().carriedValue).sort(compareOrdered));
  readonly registers = computed(() =>
    registersInOrder(this.tables()).map(({ id, name }) => ({ id, name, entries: entriesOf(this.tables(), id) })),
  );
  readonly draft = signal<Beginning>(this.first());

  amountOf({ id, start }: CarriedValue): number {
    const { values } = this.draft();
    return Object.hasOwn(values, id) ? values[id] : start;
  }

  change(part: Partial<Beginning>): void {
    this.draft.update((draft) => ({ ...draft, ...part }));
  }

  setValue(id: string, text: string): void {
    const amount = Number(text);
    if (text.trim() !== '' && Number.isFinite(amount))
      this.change({ values: { ...this.draft().values, [id]: amount } });
  }

  has(register: string, entry: string): boolean {
    return this.draft().entries[register]?.includes(entry) ?? false;
  }

  toggle(register: string, entry: string): void {
    const { entries } = this.draft();
    const known = entries[register] ?? [];
    this.change({
      entries: {
        ...entries,
        [register]: known.includes(entry) ? known.filter((one) => one !== entry) : [...known, entry],
      },
    });
  }

  keep(): void {
    this.start.set(this.draft());
    // The desks, too, stand on it from now on: a rehearsal is one of its walks.
    this.workspace.openLevel(this.draft().level);
    this.dialog.close();
  }

  private first(): Beginning {
    const known = this.start.beginning() ?? { level: '', values: {}, entries: {} };
    return { ...known, level: this.data ?? (known.level || (this.levels().at(0)?.id ?? '')) };
  }
}
