import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import type { SelectionQuery } from '@stravel/core';
import { NumberField } from '../../../ui/number-field';
import { NumberFields } from '../../../ui/number-fields';
import { LISTED_KINDS } from '../editing/item-edits';
import { SheetHead } from '../../../level-desk/sheet-head';
import { Sheet } from '../../../level-desk/sheets';

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
  selector: 'sv-select-sheet',
  imports: [SheetHead, NumberField],
  providers: [NumberFields],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <sv-sheet-head heading="Select" (left)="close()" />
    <div class="body">
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
      <div class="pair">
        <span>Longest side, m</span>
        <sv-number-field label="Min, metres" [value]="query().leastMetres ?? 0" [least]="0" (kept)="put({ leastMetres: $event || undefined })" />
        <span class="soft">to</span>
        <sv-number-field label="Max, metres" [value]="query().mostMetres ?? null" [least]="0" (kept)="put({ mostMetres: $event })" />
      </div>
      <div class="pair">
        <span>Between heights</span>
        <sv-number-field label="From height, metres" [value]="low()" (kept)="low.set($event)" />
        <span class="soft">and</span>
        <sv-number-field label="To height, metres" [value]="high()" (kept)="high.set($event)" />
      </div>
    </div>
    <div class="row">
      <span class="soft" aria-live="polite">{{ found() }} found</span>
      <button class="chip strong" [disabled]="found() === 0" (click)="select()">Select {{ found() }}</button>
    </div>
  `,
  styleUrl: '../../../level-desk/sheet.scss',
  styles: `
    label,
    .pair {
      display: grid;
      grid-template-columns: 104px minmax(0, 1fr);
      align-items: center;
      gap: 8px;
      margin: 5px 0;
    }
    .pair {
      grid-template-columns: 104px minmax(0, 1fr) auto minmax(0, 1fr);
    }
  `,
})
export class SelectSheet extends Sheet<SelectData, SelectionQuery> {
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
    if (this.numbers.settle()) this.close(this.whole());
  }

  putText(key: (typeof TEXTS)[number]['key'], text: string): void {
    this.put({ [key]: text || undefined });
  }

  put(over: Partial<SelectionQuery>): void {
    this.query.update((query) => ({ ...query, ...over }));
  }
}
