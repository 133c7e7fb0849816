import { ScrollingModule } from '@angular/cdk/scrolling';
import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { KeepScroll } from '../../../document/level/keep-scroll';
import type { ItemRef } from '../store/layout-store';
import { Help } from '../../../guide/help';

/** What a row says of an item. */
export interface ItemLine {
  readonly name: string;
  /** Its place, to tell things of one name apart. */
  readonly where: string;
}

/** The items of a stratum by name; for choosing what the plan hides. */
@Component({
  selector: 'sv-item-list',
  imports: [Help, KeepScroll, ScrollingModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <header>
      <h2>{{ title() }}</h2> <sv-help about="layout/select" what="contents" />
      <span class="soft mono">{{ items().length }}</span>
    </header>
    @if (items().length > 0) {
      <cdk-virtual-scroll-viewport svKeepScroll itemSize="24" role="listbox" aria-multiselectable="true" [attr.aria-label]="title()" tabindex="-1">
        <button
          *cdkVirtualFor="let item of items(); trackBy: idOf"
          class="plain"
          role="option"
          [attr.aria-selected]="selected().has(item.id)"
          (click)="picked.emit({ item, add: $event.shiftKey || $event.ctrlKey })"
        >
          @let line = describe()(item);
          <span>{{ line.name }}</span> <span class="soft mono">{{ line.where }}</span>
        </button>
      </cdk-virtual-scroll-viewport>
    } @else {
      <p class="soft">Empty. Choose a tool above and draw on the plan.</p>
    }
  `,
  styles: `
    :host {
      display: grid;
      grid-template-rows: auto minmax(0, 1fr);
      gap: 6px;
      min-height: 118px;
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
      display: flex;
      justify-content: space-between;
      gap: 12px;
      width: 100%;
      height: 24px;
    }
    button span:first-child {
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
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
  readonly items = input.required<readonly ItemRef[]>();
  readonly selected = input.required<ReadonlySet<string>>();
  readonly describe = input.required<(item: ItemRef) => ItemLine>();
  readonly picked = output<{ item: ItemRef; add: boolean }>();
  readonly idOf = (_index: number, item: ItemRef): string => item.id;
}
