import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { NumberField } from '../../../../ui/number-field';
import { PlaceFields } from '../../parts/place-fields';
import type { PlacedItem } from '../../editing/placed-item';
import type { ItemCard } from '../item-desk';
import { AssembliesDesk } from './assemblies-desk';
import { UseDesk } from './use-desk';
import { Help } from '../../../../guide/help';

/** One use of an assembly: where it stands, what stands within, and what it has otherwise. */
@Component({
  selector: 'sv-assembly-card',
  imports: [Help, NumberField, PlaceFields],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './assembly-card.html',
  styleUrls: ['../../parts/card-rows.scss', './assembly-card.scss'],
  host: { class: 'card' },
})
export class AssemblyCard implements ItemCard<'assembly'> {
  readonly item = input.required<PlacedItem<'assembly'>>();
  readonly disabled = input(false);
  readonly assemblies = inject(AssembliesDesk);
  readonly one = inject(UseDesk);
  readonly reach = computed(() => {
    const chosen = this.one.selected();
    const levels = chosen ? this.assemblies.levelsOf(chosen.use.assembly) : [];
    return {
      text: levels.length === 1 ? 'in this level only' : `in ${levels.length} levels`,
      names: levels.join(', '),
    };
  });
}
