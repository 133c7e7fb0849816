import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { plainRecord, type Item, type Json } from '@stravel/core';
import { ColumnSection } from '../../../../level-desk/column-section';
import { LayoutDesk } from '../../editing/layout-desk';
import type { PlacedItem } from '../../editing/placed-item';
import type { SharedField } from '../item-desk';

/** A field that all of the selected objects have. */
interface Row extends SharedField {
  /** Undefined where they differ. */
  readonly value: string | undefined;
}

/** What many objects of one kind have in common: a field is changed for all of them at once, in one edit. */
@Component({
  selector: 'sv-shared-fields',
  imports: [ColumnSection],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <sv-section heading="Shared fields">
      @for (row of rows(); track row.field) {
        <div class="field">
          <span>{{ row.label }}</span>
          @if (row.choices; as choices) {
            <select #choice class="cell" [attr.aria-label]="row.label" [disabled]="disabled()" (change)="choice.value && keep(row, choice.value)">
              @if (row.value === undefined) {
                <option value="" selected>mixed</option>
              }
              @for (one of choices; track one.value) {
                <option [value]="one.value" [selected]="one.value === row.value">{{ one.text }}</option>
              }
            </select>
          } @else {
            <input
              #box
              class="cell"
              maxlength="200"
              [attr.aria-label]="row.label"
              [placeholder]="row.value === undefined ? 'mixed' : ''"
              [value]="row.value ?? ''"
              [disabled]="disabled()"
              (change)="keep(row, box.value)"
            />
          }
        </div>
      }
    </sv-section>
  `,
  styleUrl: './shared-fields.scss',
})
export class SharedFields {
  private readonly desk = inject(LayoutDesk);
  readonly items = input.required<readonly PlacedItem[]>();
  readonly fields = input.required<readonly SharedField[]>();
  readonly disabled = input(false);
  readonly rows = computed((): Row[] =>
    this.fields().map((field) => {
      const values = new Set(this.items().map(({ item }) => textOf(plainRecord<Item>(item)[field.field])));
      const [first = ''] = values;
      return { ...field, value: values.size === 1 ? first : undefined };
    }),
  );

  /** An empty text is kept only where a field may be empty. */
  keep({ field, mayBeEmpty }: SharedField, text: string): void {
    const value = text.trim();
    if (value !== '' || mayBeEmpty === true) void this.desk.setAll(this.items(), field, value);
  }
}

const textOf = (value: Json | undefined): string => (typeof value === 'string' ? value : '');
