import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { heldAt, isMirrored } from '@stravel/core';
import { LayoutDesk } from '../../editing/layout-desk';
import type { PlacedItem } from '../../editing/placed-item';
import { KindCard } from '../cards/kind-card';
import { NumbersCard, numberRows, type KeptNumber } from '../cards/numbers-card';
import { LinkSentences } from '../../links/link-sentences';
import type { ItemCard } from '../item-desk';
import { scaleForSize, sizeOfPlacement } from './placement-size';

/** One placement of a piece. */
@Component({
  selector: 'sv-placement-card',
  imports: [KindCard, LinkSentences, NumbersCard],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <sv-item-card [heading]="piece()?.name ?? 'Unknown piece'" [note]="note()" mark="piece" [rows]="rows()" [disabled]="disabled()" (kept)="keep($event)">
      <label class="mirrored"
        ><input type="checkbox" [checked]="mirrored()" [disabled]="disabled()" (change)="mirror()" /> mirrored left to right</label
      >
    </sv-item-card>
    <sv-kind-card [item]="item()" [values]="item().item.values" [disabled]="disabled()" />
    <sv-link-sentences [disabled]="disabled()" />
  `,
  styles: `
    :host {
      display: contents;
    }

    .mirrored {
      display: flex;
      gap: 6px;
      align-items: center;
      margin-top: 6px;
    }
  `,
})
export class PlacementCard implements ItemCard<'placement'> {
  private readonly desk = inject(LayoutDesk);
  readonly item = input.required<PlacedItem<'placement'>>();
  readonly disabled = input(false);
  readonly piece = computed(() => heldAt(this.desk.openLevel.pieces(), this.item().item.piece));
  readonly note = computed(() => heldAt(this.desk.tables().stratum, this.item().stratum)?.name ?? '');
  readonly mirrored = computed(() => isMirrored(this.item().item.scale));
  readonly rows = computed(() => {
    const { item } = this.item();
    const piece = this.piece();
    return numberRows({ ...item, size: piece && sizeOfPlacement(item, piece) });
  });

  keep({ field, axis, value }: KeptNumber): void {
    if (field !== 'size') {
      void this.desk.setNumber(this.item(), field, axis, value);
      return;
    }
    const { item } = this.desk.asItStands(this.item());
    const piece = heldAt(this.desk.openLevel.pieces(), item.piece);
    if (!piece) return;
    const [x, y, z] = sizeOfPlacement(item, piece).map((old, k) => (k === axis ? value : old));
    void this.desk.resize(this.item(), { scale: scaleForSize([x, y, z], piece, item) });
  }

  mirror(): void {
    const { scale } = this.desk.asItStands(this.item()).item;
    void this.desk.resize(this.item(), { scale: [-scale[0], scale[1], scale[2]] });
  }
}
