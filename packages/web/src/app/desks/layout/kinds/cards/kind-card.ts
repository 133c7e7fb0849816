import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import {
  fieldFault,
  fieldText,
  linkLookup,
  plainJson,
  readFieldText,
  type Field,
  type FieldValue,
} from '@stravel/core';
import { ColumnSection } from '../../../../level-desk/column-section';
import type { PlacedItem } from '../../editing/placed-item';
import { LayoutDesk } from '../../editing/layout-desk';
import { pairsText, readPairs } from '../../links/value-pairs';
import { kindGroups, ownValueRows, type OwnValueRow } from './item-kinds';

type Values = Readonly<Record<string, FieldValue>> | null | undefined;

/** The kind that a thing has from a register. */
export interface OwnKind {
  /** What the register gives kinds for. */
  readonly of: 'volume' | 'marker';
  /** Field that has it, and what it has when there is none. */
  readonly field: string;
  readonly none: string | null;
  /** Id of the entry. */
  readonly id: string | null | undefined;
}

/** Kind and own values of a thing. */
@Component({
  selector: 'sv-kind-card',
  imports: [ColumnSection],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <sv-section heading="Values">
    @if (kind(); as own) {
      <label
        >Kind
        <select
          #choice
          class="cell"
          aria-label="Kind from a register"
          [disabled]="disabled()"
          (change)="set(own.field, choice.value || own.none)"
        >
          <option value="">none</option>
          @for (group of groups(); track group.register) {
            <optgroup [label]="group.register">
              @for (entry of group.entries; track entry.id) {
                <option [value]="entry.id" [selected]="entry.id === own.id">{{ entry.name }}</option>
              }
            </optgroup>
          }
        </select>
      </label>
      @if (groups().length === 0) {
        <p class="soft">No register has kinds yet. On the Sets desk, open a register and choose Volume kinds or Marker kinds.</p>
      }
    }
    @for (row of rows(); track row.field.key) {
      <label [class.own]="row.isOwn"
        ><span [title]="row.field.help ?? ''">{{ row.field.name }}</span>
        <input
          #box
          class="cell"
          [attr.aria-label]="row.field.name"
          [value]="textOf(row)"
          [placeholder]="row.isOwn ? 'empty' : ''"
          [attr.list]="row.field.type === 'choice' ? 'own-' + row.field.key : null"
          [disabled]="disabled()"
          [attr.aria-invalid]="fault().key === row.field.key"
          (change)="keep(row.field, box.value)"
        />
        @if (row.field.type === 'choice') {
          <datalist [id]="'own-' + row.field.key">
            @for (choice of row.field.choices; track choice) {
              <option [value]="choice"></option>
            }
          </datalist>
        }
        @if (row.isOwn) {
          <button
            class="plain"
            title="Use the value of its kind"
            [attr.aria-label]="row.field.name + ' from its kind'"
            [disabled]="disabled()"
            (click)="set('values.' + row.field.key, null)"
          >
            ↺
          </button>
        }
      </label>
    }
    @if (!kind()) {
      <label
        >Custom values
        <input
          #pairs
          class="cell"
          placeholder="key=value; key=value"
          [value]="pairsOf()"
          [disabled]="disabled()"
          [attr.aria-invalid]="fault().key === '*'"
          (change)="keepPairs(pairs.value)"
        />
      </label>
    }
    @if (fault().text) {
      <p class="over" role="alert">{{ fault().text }}</p>
    }
    </sv-section>
  `,
  styles: `
    :host {
      display: contents;
    }
    label {
      display: grid;
      grid-template-columns: 92px minmax(0, 1fr) auto;
      align-items: center;
      gap: 8px;
      color: var(--soft-ink);
      font-size: 12.5px;
    }
    label.own {
      color: var(--ink);
    }
  `,
})
export class KindCard {
  private readonly desk = inject(LayoutDesk);
  readonly item = input.required<PlacedItem>();
  /** Absent for what is of no kind: its own values are pairs of any names. */
  readonly kind = input<OwnKind>();
  readonly values = input<Values>();
  readonly disabled = input(false);
  readonly fault = signal<{ readonly key: string; readonly text: string }>({ key: '', text: '' });

  readonly groups = computed(() => {
    const kind = this.kind();
    return kind ? kindGroups(this.desk.tables(), kind.of) : [];
  });
  readonly rows = computed(() => {
    const kind = this.kind();
    return kind ? ownValueRows(this.desk.tables(), kind.id, this.values()) : [];
  });
  readonly pairsOf = computed(() => pairsText(this.values()));
  private readonly lookup = computed(() => linkLookup(this.desk.tables()));

  set(field: string, value: FieldValue | Record<string, FieldValue>): void {
    void this.desk.set(this.item(), field, plainJson(value));
  }

  textOf({ field, value }: OwnValueRow): string {
    return fieldText(field, value, this.lookup());
  }

  keep(field: Field, text: string): void {
    const read = readFieldText(field, text, this.lookup());
    const fault = read.fault ?? fieldFault(field, read.value, this.lookup()) ?? '';
    this.fault.set({ key: fault ? field.key : '', text: fault ? `${field.name}: ${fault}` : '' });
    if (!fault && read.fault === undefined) this.set(`values.${field.key}`, read.value);
  }

  keepPairs(text: string): void {
    const read = readPairs(text);
    this.fault.set({ key: read.fault ? '*' : '', text: read.fault ?? '' });
    if (read.values) this.set('values', Object.keys(read.values).length === 0 ? null : read.values);
  }
}
