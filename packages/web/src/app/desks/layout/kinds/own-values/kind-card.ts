import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import {
  fieldText,
  readFieldText,
  fieldFault,
  type Field,
  type FieldValue,
  type LinkLookup,
  type Marker,
  type Placement,
  type Volume,
} from '@stravel/core';
import type { PlacedItem } from '../../editing/item-edits';
import { pairsText, readPairs, type KindGroup, type OwnValueRow } from './item-kinds';

/** A link that a thing sets off or is acted on by, in words. */
export interface LinkLine {
  readonly id: string;
  readonly text: string;
}

/** Kind, own values and links of a volume, marker or placement. */
@Component({
  selector: 'sv-kind-card',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (kindField(); as field) {
      <label
        >Kind
        <select
          #kind
          class="cell"
          aria-label="Kind from a register"
          [disabled]="disabled()"
          (change)="changed.emit({ field, value: kind.value || (field === 'kind' ? '' : null) })"
        >
          <option value="">none</option>
          @for (group of groups(); track group.register) {
            <optgroup [label]="group.register">
              @for (entry of group.entries; track entry.id) {
                <option [value]="entry.id" [selected]="entry.id === kindId()">{{ entry.name }}</option>
              }
            </optgroup>
          }
        </select>
      </label>
      @if (groups().length === 0) {
        <p class="soft">No register offers kinds yet. On the Sets desk, open a register and choose what its entries are kinds of.</p>
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
            title="As its kind has it"
            [attr.aria-label]="row.field.name + ' as its kind has it'"
            [disabled]="disabled()"
            (click)="changed.emit({ field: 'values.' + row.field.key, value: null })"
          >
            ↺
          </button>
        }
      </label>
    }
    @if (isPlacement()) {
      <label
        >Own values
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
    @for (line of links(); track line.id) {
      <div class="link">
        <button class="plain" title="Change the link" (click)="linkOpened.emit(line.id)">{{ line.text }}</button>
        <button class="plain" [attr.aria-label]="'Delete the link ' + line.text" [disabled]="disabled()" (click)="linkDeleted.emit(line.id)">×</button>
      </div>
    }
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      gap: 6px;
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
    .link {
      display: flex;
      justify-content: space-between;
      border-top: 1px solid var(--line);
      font-size: 12.5px;
    }
  `,
  host: { class: 'card' },
})
export class KindCard {
  readonly item = input.required<PlacedItem>();
  readonly groups = input<readonly KindGroup[]>([]);
  readonly rows = input<readonly OwnValueRow[]>([]);
  readonly lookup = input.required<LinkLookup>();
  readonly links = input<readonly LinkLine[]>([]);
  readonly disabled = input(false);
  readonly changed = output<{ readonly field: string; readonly value: FieldValue | Record<string, FieldValue> }>();
  readonly linkOpened = output<string>();
  readonly linkDeleted = output<string>();
  readonly fault = signal<{ readonly key: string; readonly text: string }>({ key: '', text: '' });

  readonly isPlacement = computed(() => this.item().kind === 'placement');
  /** Where the kind stands: a volume is of a kind, a marker has one besides. */
  readonly kindField = computed(() =>
    this.item().kind === 'volume' ? 'kind' : this.item().kind === 'marker' ? 'entry' : '',
  );
  readonly kindId = computed(() =>
    this.item().kind === 'volume'
      ? (this.item().item as Volume).kind
      : this.item().kind === 'marker'
        ? (this.item().item as Marker).entry
        : '',
  );
  readonly pairsOf = computed(() => pairsText((this.item().item as Placement).values));

  textOf({ field, value }: OwnValueRow): string {
    return fieldText(field, value, this.lookup());
  }

  keep(field: Field, text: string): void {
    const read = readFieldText(field, text, this.lookup());
    const fault = read.fault ?? fieldFault(field, read.value, this.lookup()) ?? '';
    this.fault.set({ key: fault ? field.key : '', text: fault ? `${field.name}: ${fault}` : '' });
    if (!fault && read.fault === undefined) this.changed.emit({ field: `values.${field.key}`, value: read.value });
  }

  keepPairs(text: string): void {
    const read = readPairs(text);
    this.fault.set({ key: read.fault ? '*' : '', text: read.fault ?? '' });
    if (read.values)
      this.changed.emit({ field: 'values', value: Object.keys(read.values).length === 0 ? null : read.values });
  }
}
