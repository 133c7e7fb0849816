import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { heldAt, plainJson } from '@stravel/core';
import { LayoutDesk } from '../../editing/layout-desk';
import type { PlacedItem } from '../../editing/placed-item';
import { KindCard, type OwnKind } from '../cards/kind-card';
import { NumbersCard, numberRows, type KeptNumber } from '../cards/numbers-card';
import { LinkSentences } from '../../links/link-sentences';
import type { ItemCard } from '../item-desk';
import { resizedShape, sizeOfVolume } from './volume-size';

/** One volume. */
@Component({
  selector: 'sv-volume-card',
  imports: [KindCard, LinkSentences, NumbersCard],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let volume = item().item;
    <sv-item-card [heading]="'Volume' + (volume.name ? ' “' + volume.name + '”' : '')" [note]="note()" mark="volume" [name]="volume.name" (named)="desk.set(item(), 'name', $event)" [rows]="rows()" [disabled]="disabled()" (kept)="keep($event)"> </sv-item-card>
    <sv-kind-card [item]="item()" [kind]="ownKind()" [values]="volume.values" [disabled]="disabled()" />
    <sv-link-sentences [disabled]="disabled()" />
  `,
  styleUrl: '../cards/pair.scss',
})
export class VolumeCard implements ItemCard<'volume'> {
  readonly desk = inject(LayoutDesk);
  readonly item = input.required<PlacedItem<'volume'>>();
  readonly disabled = input(false);
  readonly note = computed(() => heldAt(this.desk.tables().stratum, this.item().stratum)?.name ?? '');
  readonly rows = computed(() => {
    const { item } = this.item();
    return numberRows({ ...item, size: sizeOfVolume(item) });
  });
  readonly ownKind = computed((): OwnKind => ({ of: 'volume', field: 'kind', none: '', id: this.item().item.kind }));

  keep({ field, axis, value }: KeptNumber): void {
    if (field !== 'size') {
      void this.desk.setNumber(this.item(), field, axis, value);
      return;
    }
    const { item } = this.desk.asItStands(this.item());
    const [x, y, z] = sizeOfVolume(item).map((old, k) => (k === axis ? value : old));
    void this.desk.resize(this.item(), { shape: plainJson(resizedShape(item, [x, y, z])) });
  }
}
