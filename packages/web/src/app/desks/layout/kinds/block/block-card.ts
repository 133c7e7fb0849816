import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { heldAt, plainJson, type Vector3 } from '@stravel/core';
import { LayoutDesk } from '../../editing/layout-desk';
import type { PlacedItem } from '../../editing/placed-item';
import { NumbersCard, numberRows, type KeptNumber } from '../cards/numbers-card';
import { SolidFields } from '../cards/solid-fields';
import type { ItemCard } from '../item-desk';
import { resizedPlanes, sizeOfPlanes } from './block-size';

/** One block. */
@Component({
  selector: 'sv-block-card',
  imports: [NumbersCard, SolidFields],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let block = item().item;
    <sv-item-card [heading]="'Block' + (block.name ? ' “' + block.name + '”' : '')" [note]="note()" mark="block" [name]="block.name" (named)="desk.set(item(), 'name', $event)" [rows]="rows()" [disabled]="disabled()" (kept)="keep($event)">
<sv-solid-fields [item]="item()" [disabled]="disabled()" />
    </sv-item-card>
  `,
  styles: ':host { display: contents; }',
})
export class BlockCard implements ItemCard<'block'> {
  readonly desk = inject(LayoutDesk);
  readonly item = input.required<PlacedItem<'block'>>();
  readonly disabled = input(false);
  readonly note = computed(() => {
    const { stratum, item } = this.item();
    return `${item.planes.length} planes · ${heldAt(this.desk.tables().stratum, stratum)?.name ?? ''}`;
  });
  readonly rows = computed(() => {
    const { position, turn, planes } = this.item().item;
    return numberRows({ position, turn, size: sizeOfPlanes(planes) });
  });

  keep({ field, axis, value }: KeptNumber): void {
    if (field !== 'size') {
      void this.desk.setNumber(this.item(), field, axis, value);
      return;
    }
    const { item } = this.desk.asItStands(this.item());
    const [x, y, z] = sizeOfPlanes(item.planes).map((old, k) => (k === axis ? value : old));
    void this.desk.resize(this.item(), { planes: plainJson(resizedPlanes(item.planes, [x, y, z] satisfies Vector3)) });
  }
}
