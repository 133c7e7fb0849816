import { ScrollingModule } from '@angular/cdk/scrolling';
import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { KeepScroll } from '../../../document/level/keep-scroll';
import { Help } from '../../../guide/help';
import type { ItemRef } from '../store/layout-store';

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
    <header (dblclick)="enlarged.emit()">
      <h3>Contents</h3> <sv-help about="layout/select" what="contents" />
      <input #box class="cell" aria-label="Filter the contents by name" placeholder="filter" autocomplete="off" [value]="filter()" (input)="filter.set(box.value)" (keydown.escape)="filter.set(''); $event.stopPropagation()" />
      <span class="soft mono" [title]="filter() ? shown().length + ' of ' + items().length : ''">{{ shown().length }}</span>
    </header>
    @if (shown().length > 0) {
      <cdk-virtual-scroll-viewport svKeepScroll itemSize="24" role="listbox" aria-multiselectable="true" [attr.aria-label]="title()" tabindex="-1">
        <button
          *cdkVirtualFor="let item of shown(); trackBy: idOf"
          class="plain"
          role="option"
          [attr.aria-selected]="selected().has(item.id)"
          (click)="picked.emit({ item, add: $event.shiftKey || $event.ctrlKey })"
          (contextmenu)="$event.preventDefault(); menuAsked.emit({ item, x: $event.clientX, y: $event.clientY })"
        >
          @let line = describe()(item);
          <span [title]="line.name">{{ line.name }}</span> <span class="soft mono">{{ line.where }}</span>
        </button>
      </cdk-virtual-scroll-viewport>
    } @else {
      <p class="soft">{{ items().length > 0 ? 'Nothing here has “' + filter() + '” in its name.' : 'Empty. Choose a tool above and draw on the plan.' }}</p>
    }
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
    }
    input {
      flex: 1;
      width: 0;
      min-height: 22px;
      padding: 1px 6px;
    }
    .mono {
      font-size: 11.5px;
    }
    cdk-virtual-scroll-viewport {
      flex: 1;
    }
    button {
      display: flex;
      justify-content: space-between;
      gap: 8px;
      width: 100%;
      height: 24px;
      padding: 2px 8px 2px 12px;
    }
    button span:first-child {
      flex: 0 1 auto;
      min-width: 40px;
    }
    button .mono {
      flex: 0 1 auto;
      min-width: 0;
      line-height: 20px;
    }
    button span {
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
    button[aria-selected='true'] {
      background: var(--brine-wash);
      box-shadow: inset 3px 0 0 var(--brine);
      font-weight: 600;
    }
    p {
      padding: 4px 12px;
      font-size: 12px;
    }
  `,
})
export class ItemList {
  /** The stratum. */
  readonly title = input.required<string>();
  readonly items = input.required<readonly ItemRef[]>();
  readonly selected = input.required<ReadonlySet<string>>();
  readonly describe = input.required<(item: ItemRef) => ItemLine>();
  readonly picked = output<{ item: ItemRef; add: boolean }>();
  readonly menuAsked = output<{ readonly item: ItemRef; readonly x: number; readonly y: number }>();
  /** It was asked to take all the height, or to give it back. */
  readonly enlarged = output();
  readonly filter = signal('');
  readonly shown = computed(() => {
    const wanted = this.filter().trim().toLowerCase();
    if (wanted === '') return this.items();
    const describe = this.describe();
    return this.items().filter((item) => describe(item).name.toLowerCase().includes(wanted));
  });
  readonly idOf = (_index: number, item: ItemRef): string => item.id;
}
