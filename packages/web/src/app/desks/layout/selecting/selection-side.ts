import { NgComponentOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { counted, specOf, type ItemKind } from '@stravel/core';
import { CountedPipe } from '../../../ui/counted-pipe';
import { LayoutDesk } from '../editing/layout-desk';
import { refOf } from '../editing/placed-item';
import { itemDesk } from '../kinds';
import { SharedFields } from '../kinds/cards/shared-fields';

/** The card of what is selected: its numbers, values and links. */
@Component({
  selector: 'sv-selection-side',
  imports: [CountedPipe, NgComponentOutlet, SharedFields],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (card(); as one) {
      <ng-container *ngComponentOutlet="one.card; inputs: one.inputs" />
    } @else if (desk.selected().length > 1) {
      <p class="card">{{ desk.selected().length | counted: 'object' }} selected. Arrow keys move them, Q and E rotate them.</p>
      <p class="card" aria-label="Selected kinds">{{ kinds() }}</p>
      @if (shared(); as fields) {
        <sv-shared-fields [items]="desk.selected()" [fields]="fields" [disabled]="allLocked()" />
      }
    }
  `,
  styles: `
    :host {
      display: contents;
    }
  `,
})
export class SelectionSide {
  readonly desk = inject(LayoutDesk);

  /** The card of the one thing that is selected, with what it shows. */
  readonly card = computed(() => {
    const item = this.desk.one();
    const card = item && itemDesk(item.kind).card;
    return card && { card, inputs: { item, disabled: this.desk.isItemLocked(refOf(item)) } };
  });
  /** What is changed for all at once, when they are of one kind. */
  readonly shared = computed(() => {
    const selected = this.desk.selected();
    const kind = selected.at(0)?.kind;
    return kind !== undefined && selected.every((one) => one.kind === kind) ? itemDesk(kind).shared : undefined;
  });
  readonly allLocked = computed(() => this.desk.selected().every((one) => this.desk.isItemLocked(refOf(one))));
  /** How many of each kind are selected. */
  readonly kinds = computed(() => {
    const counts = new Map<ItemKind, number>();
    for (const { kind } of this.desk.selected()) counts.set(kind, (counts.get(kind) ?? 0) + 1);
    return [...counts]
      .map(([kind, count]) => {
        const { one, many } = specOf(kind).words;
        return counted(count, one, many);
      })
      .join(', ');
  });
}
