import { Injectable, computed, inject } from '@angular/core';
import { anchorOf, type ItemKind } from '@stravel/core';
import { DocumentRegistry } from '../../../document/document-registry';
import { LISTED_KINDS } from '../editing/item-edits';
import { ItemNames } from '../editing/item-names';
import { LayoutDesk } from '../editing/layout-desk';
import { placedIn } from '../editing/placed-item';
import type { ItemLine } from '../parts/item-list';
import type { ItemRef } from '../store/layout-store';

/** What stands in the stratum that one works on, as a list. */
@Injectable()
export class ContentsDesk {
  private readonly registry = inject(DocumentRegistry);
  private readonly names = inject(ItemNames);
  private readonly desk = inject(LayoutDesk);

  readonly selectedIds = computed((): ReadonlySet<string> => new Set(this.desk.state().selection.map(({ id }) => id)));
  private readonly document = computed(() => {
    this.registry.contentVersion();
    const active = this.desk.activeStratum()?.id;
    return this.desk.openLevel.strata().find(({ id }) => id === active);
  });
  private readonly membership = computed(() => {
    this.registry.contentVersion();
    return this.document()?.membership;
  });
  /** Items of the active stratum; the same list as long as none comes or goes, as there may be very many. */
  readonly listed = computed((): readonly ItemRef[] => {
    const document = this.document();
    this.membership();
    return !document
      ? []
      : LISTED_KINDS.flatMap((kind) =>
          Array.from(document.tableOf(kind).keys(), (id) => ({ stratum: document.id, kind, id })),
        );
  });
  /** Reads an item anew for each row that is in view; a new function after every change. */
  readonly describe = computed(() => {
    this.registry.contentVersion();
    return (item: ItemRef): ItemLine => this.describeItem(item);
  });

  private describeItem(ref: ItemRef): ItemLine {
    const one = placedIn(this.desk.openLevel.stratum(ref.stratum), ref);
    const place = one && anchorOf<ItemKind>(one);
    return {
      name: one ? this.names.nameOf(one) : '',
      where: place ? place.map((value) => value.toFixed(1)).join(', ') : '',
    };
  }
}
