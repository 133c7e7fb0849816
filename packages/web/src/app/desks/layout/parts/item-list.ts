import { ScrollingModule } from '@angular/cdk/scrolling';
import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { ItemRef } from '../store/layout-store';

export interface ListedItem extends ItemRef {
  readonly name: string;
  readonly selected: boolean;
}

/** The items of a stratum by name; for choosing what the plan hides. */
@Component({
  selector: 'sv-item-list',
  imports: [ScrollingModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <header>
      <h2>{{ title() }}</h2>
      <span class="soft mono">{{ items().length }}</span>
    </header>
    @if (items().length > 0) {
      <cdk-virtual-scroll-viewport itemSize="24" role="listbox" aria-multiselectable="true" [attr.aria-label]="title()" tabindex="-1">
        <button
          *cdkVirtualFor="let item of items(); trackBy: idOf"
          class="plain"
          role="option"
          [attr.aria-selected]="item.selected"
          (click)="picked.emit({ item, add: $event.shiftKey || $event.ctrlKey })"
        >
          {{ item.name }}
        </button>
      </cdk-virtual-scroll-viewport>
    } @else {
      <p class="soft">Nothing in it yet. Choose a tool above and draw on the plan.</p>
    }
  `,
  styles: `
    :host {
      display: grid;
      grid-template-rows: auto minmax(0, 1fr);
      gap: 6px;
      min-height: 140px;
      flex: 1;
    }
    header {
      display: flex;
      justify-content: space-between;
    }
    cdk-virtual-scroll-viewport {
      height: 100%;
    }
    button {
      display: block;
      width: 100%;
      height: 24px;
    }
    button[aria-selected='true'] {
      background: var(--brine-wash);
      font-weight: 600;
    }
  `,
  host: { class: 'card' },
})
export class ItemList {
  readonly title = input.required<string>();
  readonly items = input.required<readonly ListedItem[]>();
  readonly picked = output<{ item: ItemRef; add: boolean }>();
  readonly idOf = (_index: number, item: ListedItem): string => item.id;
}
