import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatDialogModule } from '@angular/material/dialog';
import type { SelectionQuery } from '@stravel/core';
import { NumberField } from '../../../ui/number-field';
import { NumberFields } from '../../../ui/number-fields';
import { LISTED_KINDS } from '../editing/item-edits';
import { Dialog } from '../../../ui/dialog';

export interface SelectData {
  readonly pieces: readonly { readonly id: string; readonly name: string }[];
  /** How many things a query finds. */
  readonly count: (query: SelectionQuery) => number;
}

const TEXTS = [
  { key: 'name', label: 'Name', hint: 'of a block, volume, path, marker or piece' },
  { key: 'group', label: 'Group', hint: 'or a group around it' },
  { key: 'category', label: 'Category', hint: 'of its group' },
  { key: 'tag', label: 'Tag', hint: 'of a knot of a path' },
  { key: 'value', label: 'Custom value', hint: '' },
] as const;

/** Selects things by what they are and where. */
@Component({
  selector: 'sv-select-dialog',
  imports: [MatDialogModule, NumberField],
  providers: [NumberFields],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>Select</h2>
    <mat-dialog-content>
      @for (one of texts; track one.key) {
        <label
          ><span>{{ one.label }}</span> <input #box class="cell" [placeholder]="one.hint" [value]="query()[one.key] ?? ''" (input)="putText(one.key, box.value)"
        /></label>
      }
      <label
        ><span>Kind</span>
        <select #kind class="cell" (change)="put({ kind: $any(kind.value) || undefined })">
          <option value="">any</option>
          @for (one of kinds; track one) {
            <option>{{ one }}</option>
          }
        </select></label
      >
      <label
        ><span>Piece</span>
        <select #piece class="cell" (change)="put({ piece: piece.value || undefined })">
          <option value="">any</option>
          @for (one of data.pieces; track one.id) {
            <option [value]="one.id">{{ one.name }}</option>
          }
        </select></label
      >
      <div class="row">
        <span>Longest side, m</span>
        <sv-number-field label="Min, metres" [value]="query().leastMetres ?? 0" [least]="0" (kept)="put({ leastMetres: $event || undefined })" />
        <span class="soft">to</span>
        <sv-number-field label="Max, metres" [value]="query().mostMetres ?? null" [least]="0" (kept)="put({ mostMetres: $event })" />
      </div>
      <div class="row">
        <span>Between heights</span>
        <sv-number-field label="From height, metres" [value]="low()" (kept)="low.set($event)" />
        <span class="soft">and</span>
        <sv-number-field label="To height, metres" [value]="high()" (kept)="high.set($event)" />
      </div>
    </mat-dialog-content>
    <mat-dialog-actions>
      <span class="soft" aria-live="polite">{{ found() }} found</span>
      <button class="chip" mat-dialog-close>Cancel</button>
      <button class="chip strong" [disabled]="found() === 0" (click)="select()">Select {{ found() }}</button>
    </mat-dialog-actions>
  `,
  styles: `
    label,
    .row {
      display: grid;
      grid-template-columns: 120px minmax(0, 1fr);
      align-items: center;
      gap: 8px;
      margin: 5px 0;
    }
    .row {
      grid-template-columns: 120px 80px auto 80px;
    }
  `,
})
export class SelectDialog extends Dialog<SelectData, SelectionQuery> {
  static readonly size = { width: '460px' };
  private readonly numbers = inject(NumberFields);
  readonly texts = TEXTS;
  readonly kinds = LISTED_KINDS;
  readonly query = signal<SelectionQuery>({});
  readonly low = signal<number | null>(null);
  readonly high = signal<number | null>(null);
  readonly whole = computed((): SelectionQuery => {
    const [low, high] = [this.low(), this.high()];
    if (low === null && high === null) return this.query();
    return { ...this.query(), within: { min: [-1e9, low ?? -1e9, -1e9], max: [1e9, high ?? 1e9, 1e9] } };
  });
  readonly found = computed(() => this.data.count(this.whole()));

  select(): void {
    if (this.numbers.settle()) this.dialog.close(this.whole());
  }

  putText(key: (typeof TEXTS)[number]['key'], text: string): void {
    this.put({ [key]: text || undefined });
  }

  put(over: Partial<SelectionQuery>): void {
    this.query.update((query) => ({ ...query, ...over }));
  }
}
