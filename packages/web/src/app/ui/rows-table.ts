import { NgTemplateOutlet } from '@angular/common';
import { ScrollingModule } from '@angular/cdk/scrolling';
import {
  ChangeDetectionStrategy,
  Component,
  Directive,
  TemplateRef,
  computed,
  contentChild,
  inject,
  input,
} from '@angular/core';

/** A column of a table that is read, not typed into. */
export interface RowsColumn {
  readonly name: string;
  /** As the tracks of a grid are given: the rows in view alone must not change it. */
  readonly width: string;
  readonly isNumber?: boolean;
}

/** What stands on a line: a record that has a level. */
interface LevelRow {
  readonly level: { readonly id: string };
}

interface RowContext<R> {
  readonly $implicit: R;
}

/** The cells of a row, and the rows. */
@Directive({ selector: '[svRowCells]' })
export class RowCells<R extends LevelRow> {
  readonly svRowCells = input.required<readonly R[]>();
  readonly template = inject<TemplateRef<RowContext<R>>>(TemplateRef);

  /** Tells the template's compiler what stands on a line. */
  static ngTemplateContextGuard<R extends LevelRow>(cells: RowCells<R>, context: unknown): context is RowContext<R> {
    return cells instanceof RowCells && context !== null;
  }
}

/** A table of levels of which only the rows in view are there. */
@Component({
  selector: 'sv-rows-table',
  imports: [NgTemplateOutlet, ScrollingModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="table" role="table" [style.min-width.px]="leastWidth()" [attr.aria-label]="label()" [attr.aria-rowcount]="rows().length + 1">
      <div class="head" role="rowgroup">
        <div class="line" role="row" aria-rowindex="1" [style.grid-template-columns]="tracks()">
          @for (column of columns(); track column.name) {
            <span role="columnheader" [class.number]="column.isNumber">{{ column.name }}</span>
          }
        </div>
      </div>
      <cdk-virtual-scroll-viewport role="rowgroup" tabindex="0" itemSize="28" minBufferPx="300" maxBufferPx="600">
        <div
          *cdkVirtualFor="let row of rows(); trackBy: idOf; let i = index"
          class="line"
          role="row"
          [class.opened]="row.level.id === opened()"
          [attr.aria-rowindex]="i + 2"
          [style.grid-template-columns]="tracks()"
        >
          <ng-container [ngTemplateOutlet]="cells().template" [ngTemplateOutletContext]="{ $implicit: row }" />
        </div>
      </cdk-virtual-scroll-viewport>
    </div>
  `,
  styles: `
    :host {
      display: block;
      min-height: 0;
      overflow: auto hidden;
    }
    .table {
      display: grid;
      grid-template-rows: auto minmax(0, 1fr);
      height: 100%;
    }
    .head {
      overflow: hidden;
    }
    .head,
    cdk-virtual-scroll-viewport {
      scrollbar-gutter: stable;
    }
    .line {
      display: grid;
      align-items: center;
      column-gap: 8px;
      height: 28px;
      padding: 0 6px;
      border-bottom: 1px solid var(--line);
      white-space: nowrap;
      contain: layout style;
    }
    .head .line {
      font-weight: 600;
      border-bottom-color: var(--ink);
    }
    .opened {
      background: var(--brine-wash);
    }
    .number {
      text-align: right;
    }
  `,
})
export class RowsTable {
  readonly label = input.required<string>();
  readonly columns = input.required<readonly RowsColumn[]>();
  /** Where there is less room it is scrolled, pixels. */
  readonly leastWidth = input.required<number>();
  /** Id of the level whose row stands out. */
  readonly opened = input<string>();
  protected readonly cells = contentChild.required<RowCells<LevelRow>>(RowCells);
  protected readonly rows = computed(() => this.cells().svRowCells());
  protected readonly tracks = computed(() =>
    this.columns()
      .map(({ width }) => width)
      .join(' '),
  );
  protected readonly idOf = (_index: number, { level }: LevelRow): string => level.id;
}
