import { Injectable, Injector, inject } from '@angular/core';
import { toObservable } from '@angular/core/rxjs-interop';
import { Store } from '@ngrx/store';
import { filter, firstValueFrom } from 'rxjs';
import { OpenLevel } from '../document/level/open-level';
import { recordsFeature } from '../document/records/records-store';
import { remove } from '../edits/operations';
import { SharedEdits } from '../reach/shared-edits';

/** Takes away the block that a finding is about: in its level alone or in all that share it, as the person says. */
@Injectable({ providedIn: 'root' })
export class ItemFix {
  private readonly openLevel = inject(OpenLevel);
  private readonly shared = inject(SharedEdits);
  private readonly injector = inject(Injector);
  private readonly tables = inject(Store).selectSignal(recordsFeature.selectTables);

  /** @returns why nothing was taken away, '' when it was or when the person left it */
  async remove(level: string, block: string): Promise<string> {
    this.openLevel.open(level);
    await firstValueFrom(
      toObservable(this.openLevel.isLoading, { injector: this.injector }).pipe(filter((isLoading) => !isLoading)),
    );
    const strata = this.openLevel.strata();
    for (const {
      id,
      tables: { block: blocks },
    } of strata) {
      const found = blocks.get(block);
      if (!found) continue;
      await this.shared.commit('fix a finding', [remove(id, 'block', found)]);
      return '';
    }
    for (const {
      tables: { recipe: recipes, pin: pins, assembly: assemblyUses },
    } of strata) {
      const recipe = [...recipes.values()].find(
        ({ id }) => block.startsWith(`${id}.`) || pins.get(block)?.recipe === id,
      );
      if (recipe) return `The block is made by the recipe ${recipe.name}. Change the recipe on the Sections desk.`;
      const use = [...assemblyUses.values()].find(({ id }) => block.startsWith(`${id}.`));
      if (use)
        return `The block is part of the assembly ${this.tables().stratum[use.assembly]?.name ?? use.assembly}, shared by all its uses. Choose Edit for all in Layout to delete it there.`;
    }
    return 'The block was deleted. Bake the level again.';
  }
}
