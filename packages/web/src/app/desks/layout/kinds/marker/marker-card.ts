import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { MARKER_KINDS, heldAt } from '@stravel/core';
import { NumberField } from '../../../../ui/number-field';
import { LayoutDesk } from '../../editing/layout-desk';
import type { PlacedItem } from '../../editing/placed-item';
import { KindCard, type OwnKind } from '../cards/kind-card';
import { NumbersCard, numberRows } from '../cards/numbers-card';
import { LinkSentences } from '../../links/link-sentences';
import type { ItemCard } from '../item-desk';

/** One marker. */
@Component({
  selector: 'sv-marker-card',
  imports: [KindCard, LinkSentences, NumberField, NumbersCard],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let marker = item().item;
    <sv-item-card
      [heading]="'Marker · ' + marker.kind"
      [note]="note()"
      mark="marker"
      [rows]="rows()"
      [disabled]="disabled()"
      (kept)="desk.setNumber(item(), $event.field, $event.axis, $event.value)"
    >
      <div class="pair">
        <label
          >Kind
          <select #kind class="cell" [disabled]="disabled()" (change)="desk.set(item(), 'kind', kind.value)">
            @for (one of kinds; track one) {
              <option [selected]="one === marker.kind">{{ one }}</option>
            }
          </select>
        </label>
        <span class="field"
          >Direction <sv-number-field label="Direction in degrees" [value]="marker.turn" [disabled]="disabled()" (kept)="desk.set(item(), 'turn', $event)"
        /></span>
      </div>
    </sv-item-card>
    <sv-kind-card [item]="item()" [kind]="ownKind()" [values]="marker.values" [disabled]="disabled()" />
    <sv-link-sentences [disabled]="disabled()" />
  `,
  styleUrl: '../cards/pair.scss',
})
export class MarkerCard implements ItemCard<'marker'> {
  readonly desk = inject(LayoutDesk);
  readonly item = input.required<PlacedItem<'marker'>>();
  readonly disabled = input(false);
  readonly kinds = MARKER_KINDS;
  readonly note = computed(() => heldAt(this.desk.tables().stratum, this.item().stratum)?.name ?? '');
  readonly rows = computed(() => numberRows({ position: this.item().item.position }));
  readonly ownKind = computed((): OwnKind => ({
    of: 'marker',
    field: 'entry',
    none: null,
    id: this.item().item.entry,
  }));
}
