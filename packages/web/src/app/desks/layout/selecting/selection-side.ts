import { NgComponentOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { anchorOf, type ItemKind } from '@stravel/core';
import { DocumentRegistry } from '../../../document/document-registry';
import { LISTED_KINDS } from '../editing/item-edits';
import { ItemNames } from '../editing/item-names';
import { LayoutDesk } from '../editing/layout-desk';
import { placedIn, refOf } from '../editing/placed-item';
import { itemDesk } from '../kinds';
import { ItemList, type ItemLine } from '../parts/item-list';
import type { ItemRef } from '../store/layout-store';
import { SelectionBar } from './selection-bar';
import { CountedPipe } from '../../../ui/counted-pipe';

/** What is selected, in numbers, with what can be done with it; and all that stands in the stratum. */
@Component({
  selector: 'sv-selection-side',
  imports: [CountedPipe, ItemList, NgComponentOutlet, SelectionBar],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (card(); as one) {
      <ng-container *ngComponentOutlet="one.card; inputs: one.inputs" />
    } @else if (desk.selected().length > 1) {
      <p class="card">{{ desk.selected().length | counted: 'object' }} selected. Arrow keys move them, Q and E rotate them.</p>
    }
    <sv-selection-bar [selected]="desk.selected()" />
    @if (desk.activeStratum(); as stratum) {
      <sv-item-list [title]="stratum.name" [items]="listed()" [selected]="selectedIds()" [describe]="describe()" (picked)="desk.pick($event.item, $event.add)" />
    }
  `,
  styles: `
    :host {
      display: contents;
    }
  `,
})
export class SelectionSide {
  private readonly registry = inject(DocumentRegistry);
  private readonly names = inject(ItemNames);
  readonly desk = inject(LayoutDesk);

  /** The card of the one thing that is selected, with what it shows. */
  readonly card = computed(() => {
    const item = this.desk.one();
    const card = item && itemDesk(item.kind).card;
    return card && { card, inputs: { item, disabled: this.desk.isItemLocked(refOf(item)) } };
  });
  readonly selectedIds = computed((): ReadonlySet<string> => new Set(this.desk.state().selection.map(({ id }) => id)));
  readonly listed = computed((): readonly ItemRef[] => {
    this.registry.contentVersion();
    const active = this.desk.activeStratum()?.id;
    const document = this.desk.openLevel.strata().find(({ id }) => id === active);
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
