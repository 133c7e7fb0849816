import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { BLOCK_SIGHTS, heldAt, plainJson, type Vector3 } from '@stravel/core';
import { LayoutDesk } from '../../editing/layout-desk';
import type { PlacedItem } from '../../editing/placed-item';
import { NumbersCard, numberRows, type KeptNumber } from '../cards/numbers-card';
import type { ItemCard } from '../item-desk';
import { resizedPlanes, sizeOfPlanes } from './block-size';

/** One block. */
@Component({
  selector: 'sv-block-card',
  imports: [NumbersCard],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let block = item().item;
    <sv-item-card [heading]="'Block' + (block.name ? ' “' + block.name + '”' : '')" [note]="note()" mark="block" [name]="block.name" (named)="desk.set(item(), 'name', $event)" [rows]="rows()" [disabled]="disabled()" (kept)="keep($event)">
      <div class="pair">
        <label
          >Blocks view
          <select #sight class="cell" [disabled]="disabled()" (change)="desk.set(item(), 'sight', sight.value)">
            @for (one of sights; track one) {
              <option [value]="one" [selected]="one === block.sight">{{ one === 'hides' ? 'yes' : 'no' }}</option>
            }
          </select>
        </label>
        <label
          >Material
          <input
            #material
            class="cell"
            [value]="block.material"
            maxlength="60"
            [disabled]="disabled()"
            (change)="material.value.trim() && desk.set(item(), 'material', material.value.trim())"
        /></label>
      </div>
    </sv-item-card>
  `,
  styleUrl: '../cards/pair.scss',
})
export class BlockCard implements ItemCard<'block'> {
  readonly desk = inject(LayoutDesk);
  readonly item = input.required<PlacedItem<'block'>>();
  readonly disabled = input(false);
  readonly sights = BLOCK_SIGHTS;
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
