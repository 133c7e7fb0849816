import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { NumberField } from '../../../../ui/number-field';
import { PlaceFields } from '../../parts/place-fields';
import { AssembliesDesk } from './assemblies-desk';
import { UseDesk } from './use-desk';

/** One use of an assembly: where it stands, what stands within, and what it has otherwise. */
@Component({
  selector: 'sv-assembly-card',
  imports: [NumberField, PlaceFields],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './assembly-card.html',
  styleUrls: ['../../parts/card-rows.scss', './assembly-card.scss'],
  host: { class: 'card' },
})
export class AssemblyCard {
  readonly assemblies = inject(AssembliesDesk);
  readonly one = inject(UseDesk);
  readonly reach = computed(() => {
    const chosen = this.one.selected();
    const levels = chosen ? this.assemblies.levelsOf(chosen.use.assembly) : [];
    return {
      text: levels.length === 1 ? 'in this level alone' : `in ${levels.length} levels`,
      names: levels.join(', '),
    };
  });
}
