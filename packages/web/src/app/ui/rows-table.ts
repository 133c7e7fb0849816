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
import { TableBody, TableFrame } from './table-frame';

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
  imports: [NgTemplateOutlet, ScrollingModule, TableBody, TableFrame],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <sv-table-frame tableRole="table" [label]="label()" [lines]="rows().length" [columns]="columns().length">
      <div
        svTableHead
        class="line head"
        role="row"
        aria-rowindex="1"
        [style.min-width.px]="leastWidth()"
        [style.grid-template-columns]="tracks()"
      >
        @for (column of columns(); track column.name) {
          <span role="columnheader" [class.number]="column.isNumber">{{ column.name }}</span>
        }
      </div>
      <cdk-virtual-scroll-viewport svTableBody tabindex="0" itemSize="28" minBufferPx="300" maxBufferPx="600">
        <div
          *cdkVirtualFor="let row of rows(); trackBy: idOf; let i = index"
          class="line"
          role="row"
          [class.opened]="row.level.id === opened()"
          [attr.aria-rowindex]="i + 2"
          [style.min-width.px]="leastWidth()"
          [style.grid-template-columns]="tracks()"
        >
          <ng-container [ngTemplateOutlet]="cells().template" [ngTemplateOutletContext]="{ $implicit: row }" />
        </div>
      </cdk-virtual-scroll-viewport>
    </sv-table-frame>
  `,
  styleUrl: './table-lines.scss',
  styles: `
    :host {
      display: block;
      min-height: 0;
    }
    .line {
      height: 28px;
      padding: 0 6px;
      white-space: nowrap;
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
