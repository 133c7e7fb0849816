import { CountedPipe } from '../../../../ui/counted-pipe';
import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { PlanPoint } from '@stravel/core';
import { NumberField } from '../../../../ui/number-field';
import { PlaceFields } from '../../parts/place-fields';
import { LayoutDesk } from '../../editing/layout-desk';
import type { PlacedItem } from '../../editing/placed-item';
import type { ItemCard } from '../item-desk';
import { MasksDesk } from './masks-desk';
import { Help } from '../../../../guide/help';

/** Lines of a list that the card shows. */
const MAX_LINES = 40;

/** One mask: its place and scale, the brush, and what a body finds in it. */
@Component({
  selector: 'sv-mask-card',
  imports: [Help, CountedPipe, NumberField, PlaceFields],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './mask-card.html',
  styleUrls: ['../../parts/card-rows.scss', './mask-card.scss'],
  host: { class: 'card' },
})
export class MaskCard implements ItemCard<'mask'> {
  readonly item = input.required<PlacedItem<'mask'>>();
  readonly disabled = input(false);
  readonly desk = inject(LayoutDesk);
  readonly masks = inject(MasksDesk);
  readonly mostLines = MAX_LINES;
  readonly size = computed(() => {
    const mask = this.masks.selected()?.mask;
    return mask
      ? `${mask.columns} by ${mask.rows} px, ${(mask.columns / mask.pixelsPerMetre).toFixed(1)} by ${(mask.rows / mask.pixelsPerMetre).toFixed(1)} m`
      : '';
  });
  readonly ways = computed(() => {
    const survey = this.masks.shown()?.survey;
    return (survey?.ways ?? []).map(({ fault, lengthMetres }, i) => ({
      goal: survey?.goals[i] ?? '',
      isThere: fault === '',
      text: fault || `${lengthMetres.toFixed(1)} m`,
    }));
  });

  goTo([x0, z0]: PlanPoint, [x1, z1]: PlanPoint): void {
    const y = this.masks.selected()?.mask.position[1] ?? 0;
    this.desk.plate()?.frame({ min: [x0, y, z0], max: [x1, y + 1, z1] });
  }

  goToPoint([x, z]: PlanPoint): void {
    const reach = 4 * this.masks.narrowMetres();
    this.goTo([x - reach, z - reach], [x + reach, z + reach]);
  }
}
