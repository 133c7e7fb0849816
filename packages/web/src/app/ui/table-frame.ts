import { CdkVirtualScrollViewport } from '@angular/cdk/scrolling';
import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  Directive,
  ElementRef,
  afterNextRender,
  inject,
  input,
  viewChild,
} from '@angular/core';

/** The frame of every table: a head above a body of which only the lines in view exist. The head follows the body sideways. */
@Component({
  selector: 'sv-table-frame',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="frame" [attr.role]="tableRole()" [attr.aria-label]="label()" [attr.aria-rowcount]="lines() + 1" [attr.aria-colcount]="columns()">
      <div class="clip" role="rowgroup" #head><ng-content select="[svTableHead]" /></div>
      <ng-content />
    </div>
  `,
  styles: `
    :host {
      display: block;
      height: 100%;
      min-height: 0;
    }
    .frame {
      display: grid;
      grid-template-rows: auto minmax(0, 1fr);
      height: 100%;
    }
    .clip {
      overflow: hidden;
      scrollbar-gutter: stable;
    }
  `,
})
export class TableFrame {
  /** A grid is walked through by keys, a table is read. */
  readonly tableRole = input.required<'table' | 'grid'>();
  readonly label = input.required<string>();
  /** How many there are, in view or not. */
  readonly lines = input.required<number>();
  readonly columns = input.required<number>();
  private readonly head = viewChild.required<ElementRef<HTMLElement>>('head');

  follow(left: number): void {
    this.head().nativeElement.scrollLeft = left;
  }
}

/** What scrolls within a table. */
@Directive({
  selector: '[svTableBody]',
  host: { role: 'rowgroup', '(scroll)': 'follow()' },
})
export class TableBody {
  private readonly frame = inject(TableFrame);
  private readonly element = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly viewport = inject(CdkVirtualScrollViewport, { self: true, optional: true });

  constructor() {
    // The viewport itself looks at its size only when the window's changes.
    const observer = new ResizeObserver(() => this.viewport?.checkViewportSize());
    afterNextRender(() => observer.observe(this.element));
    inject(DestroyRef).onDestroy(() => observer.disconnect());
  }

  follow(): void {
    this.frame.follow(this.element.scrollLeft);
  }
}
