import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { HOLE, counted, type Vector3 } from '@stravel/core';
import { NumberField } from '../../../../ui/number-field';
import { PlaceFields } from '../../parts/place-fields';
import { LayoutDesk } from '../../editing/layout-desk';
import type { PlacedItem } from '../../editing/placed-item';
import type { ItemCard } from '../item-desk';
import { TilesDesk } from './tiles-desk';
import { Help } from '../../../../guide/help';

/** One tile floor: its squares by the legend, rows and columns, text, and whether its goal can be reached. */
@Component({
  selector: 'sv-tile-card',
  imports: [Help, NumberField, PlaceFields],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './tile-card.html',
  styleUrls: ['../../parts/card-rows.scss', './tile-card.scss'],
  host: { class: 'card' },
})
export class TileCard implements ItemCard<'tileFloor'> {
  readonly item = input.required<PlacedItem<'tileFloor'>>();
  readonly disabled = input(false);
  readonly desk = inject(LayoutDesk);
  readonly tiles = inject(TilesDesk);
  readonly hole = HOLE;
  /** Row and column, from 1, before which one is put in. */
  readonly line = signal(1);
  readonly answer = computed(() => {
    const solved = this.tiles.solved();
    if (!solved) return '';
    if (solved.fault) return solved.fault;
    const looked = `${solved.states.toLocaleString('en')} ${solved.states === 1 ? 'state' : 'states'} checked`;
    if (solved.answer === 'reached')
      return `The goal can be reached in ${counted(solved.way.length - 1, 'step')}, the fewest there are. ${looked}.`;
    return solved.answer === 'never'
      ? `The goal can never be reached: everything was searched. ${looked}.`
      : `Not decided within the limit: ${looked}. The goal may or may not be reached.`;
  });
  readonly idle = computed(() => {
    const solved = this.tiles.solved();
    if (!solved || solved.fault) return '';
    const squares = counted(solved.neverNeeded.length, 'square is', 'squares are');
    return `${squares} never needed, ${counted(solved.deadEnds.length, 'dead end')} among them.`;
  });

  put(field: 'name' | 'squareMetres' | 'position', value: string | number | Vector3): void {
    void this.desk.set(this.item(), field, value);
  }
}
