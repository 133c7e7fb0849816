import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import type { Vector3 } from '@stravel/core';
import { NumberField } from '../../../ui/number-field';
import { AssembliesDesk } from './assemblies-desk';
import { UseDesk } from './use-desk';

/** One use of an assembly: where it stands, what stands within, and what it has otherwise. */
@Component({
  selector: 'sv-assembly-card',
  imports: [NumberField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './assembly-card.html',
  styleUrl: './assembly-card.scss',
  host: { class: 'card' },
})
export class AssemblyCard {
  readonly assemblies = inject(AssembliesDesk);
  readonly one = inject(UseDesk);
  readonly axes = ['x', 'y', 'z'];
  readonly reach = computed(() => {
    const chosen = this.one.selected();
    const levels = chosen ? this.assemblies.levelsOf(chosen.use.assembly) : [];
    return { says: levels.length === 1 ? 'in this level alone' : `in ${levels.length} levels`, names: levels.join(', ') };
  });

  place(axis: number, value: number): void {
    const chosen = this.one.selected();
    if (chosen) this.one.put('position', chosen.use.position.map((old, k) => (k === axis ? value : old)) as unknown as Vector3);
  }
}
