import { Injectable, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { heldAt, overIdsOf, specOf, type AnyItem } from '@stravel/core';
import { OpenLevel } from '../../../document/level/open-level';
import { recordsFeature } from '../../../document/records/records-store';

/** What the items of the open level are called. */
@Injectable()
export class ItemNames {
  private readonly openLevel = inject(OpenLevel);
  private readonly tables = inject(Store).selectSignal(recordsFeature.selectTables);

  /** Its own name, else that of what it shows, else the word for its kind. */
  nameOf(one: AnyItem): string {
    const { kind, item } = one;
    const { name, words } = specOf(kind);
    const own = name(item, { piece: (id) => heldAt(this.openLevel.pieces(), id)?.name ?? 'unknown piece' });
    if (own !== '') return own;
    const [assembly] = assembliesIn(one);
    return assembly === undefined ? words.one : this.assemblyName(assembly);
  }

  /** Name of a piece or of an assembly; undefined when it is gone. */
  nameOfSource(id: string): string | undefined {
    return heldAt(this.openLevel.pieces(), id)?.name ?? heldAt(this.tables().stratum, id)?.name;
  }

  assemblyName(id: string): string {
    return heldAt(this.tables().stratum, id)?.name ?? 'a deleted assembly';
  }
}

/** The assemblies that an item brings itself. */
export function assembliesIn(one: AnyItem): string[] {
  return sourcesOf(one)
    .filter(({ to, field }) => to === 'stratum' && field === 'assembly')
    .map(({ id }) => id);
}

/** The pieces and assemblies that an item shows. */
export function sourcesOf({
  kind,
  item,
}: AnyItem): { readonly id: string; readonly to: string; readonly field: string }[] {
  const found: { id: string; to: string; field: string }[] = [];
  overIdsOf(kind, item, (id, { to, field, isStrict }) => {
    if (isStrict) found.push({ id, to, field });
    return id;
  });
  return found;
}
