import { CdkDrag, type CdkDragDrop, CdkDragHandle, CdkDropList } from '@angular/cdk/drag-drop';
import { CdkVirtualScrollViewport, ScrollingModule } from '@angular/cdk/scrolling';
import { ChangeDetectionStrategy, Component, ElementRef, afterRenderEffect, computed, inject, input, output, viewChild } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import type { FieldValue, Level, LevelSet } from '@stravel/core';
import { valueText } from '../../../ui/value-text';
import type { ActiveCell } from '../store/sets-store';
import { cellValue, type TableColumn, type TableRow } from '../table-rows';
import { CellEditor } from './cell-editor';

/** What was asked of a row through its menu or keys. */
export type RowWish = 'open' | 'duplicate' | 'up' | 'down' | 'bin' | 'new-level' | 'new-set' | 'move';

export const ROW_HEIGHT = 32;

/** Sets and levels in lines; cells are edited in place. Only the lines in view exist. */
@Component({
  selector: 'sv-level-table',
  imports: [CdkDrag, CdkDragHandle, CdkDropList, CellEditor, MatMenuModule, ScrollingModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(focusin)': 'focusMoved($event.target)', '(focusout)': 'focusMoved($event.relatedTarget)' },
  templateUrl: './level-table.html',
  styleUrl: './level-table.scss',
})
export class LevelTable {
  private readonly element = inject<ElementRef<HTMLElement>>(ElementRef);
  readonly rows = input.required<readonly TableRow[]>();
  readonly columns = input.required<readonly TableColumn[]>();
  readonly active = input.required<ActiveCell | null>();
  readonly editing = input.required<boolean>();
  readonly chosen = input.required<ReadonlySet<string>>();
  readonly openLevel = input<string>();

  readonly entered = output<ActiveCell>();
  readonly editStarted = output<ActiveCell>();
  readonly editEnded = output();
  readonly levelChanged = output<{ level: Level; column: TableColumn; value: FieldValue }>();
  readonly setRenamed = output<{ set: LevelSet; name: string }>();
  readonly toggled = output<string>();
  readonly folded = output<string>();
  readonly wished = output<{ row: TableRow; wish: RowWish }>();
  readonly dropped = output<{ row: TableRow; before: TableRow | undefined }>();

  private readonly viewport = viewChild.required(CdkVirtualScrollViewport);
  readonly rowHeight = ROW_HEIGHT;
  readonly template = computed(
    () =>
      `22px 28px 44px ${this.columns()
        .map(({ width }) => width)
        .join(' ')} 34px`,
  );
  readonly value = cellValue;
  readonly text = valueText;
  readonly rowId = (_index: number, row: TableRow): string => row.id;

  private held = false;
  /** Where keys have led already while the page has not drawn it yet, so that fast keys all count. */
  private ahead: ActiveCell | undefined;

  constructor() {
    afterRenderEffect(() => {
      const active = this.active();
      this.rows();
      this.ahead = undefined;
      // A line that moved takes the focus away with its element.
      const lost = this.held && document.activeElement === document.body;
      if (active && !this.editing() && (lost || this.element.nativeElement.contains(document.activeElement))) this.focusCell(active);
    });
  }

  focusMoved(to: EventTarget | null): void {
    if (to !== null) this.held = this.element.nativeElement.contains(to as Node);
  }

  isActive(row: TableRow, column: string): boolean {
    const active = this.active();
    return active?.row === row.id && active.column === column;
  }

  /** The one cell that Tab reaches. */
  isTabStop(row: TableRow, column: string, index: number): boolean {
    return this.active() ? this.isActive(row, column) : index === 0 && column === 'name';
  }

  key(event: KeyboardEvent, row: TableRow, column: string): void {
    if (this.editing()) return;
    const wish = this.wishOf(event);
    if (wish) this.wished.emit({ row, wish });
    else if (event.key === 'Enter' || event.key === 'F2') this.editStarted.emit({ row: row.id, column });
    else if (event.key === ' ') {
      if (row.kind === 'level') this.toggled.emit(row.id);
      else this.folded.emit(row.id);
    } else if (!this.move(event, row, column)) return;
    event.preventDefault();
    event.stopPropagation();
  }

  editSet(set: LevelSet, name: string): void {
    if (name.trim() !== '' && name !== set.name) this.setRenamed.emit({ set, name: name.trim() });
    this.editEnded.emit();
  }

  edit(level: Level, column: TableColumn, value: FieldValue): void {
    if (value !== cellValue(level, column)) this.levelChanged.emit({ level, column, value });
    this.editEnded.emit();
  }

  drop(event: CdkDragDrop<unknown>): void {
    const start = this.viewport().getRenderedRange().start;
    const row = event.item.data as TableRow;
    const rest = this.rows().filter((other) => other.id !== row.id);
    this.dropped.emit({ row, before: rest.at(event.currentIndex + start) });
  }

  private wishOf(event: KeyboardEvent): RowWish | undefined {
    if (event.altKey && event.key === 'ArrowUp') return 'up';
    if (event.altKey && event.key === 'ArrowDown') return 'down';
    if (event.key === 'Delete') return 'bin';
    if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'd') return 'duplicate';
    return undefined;
  }

  private move(event: KeyboardEvent, row: TableRow, column: string): boolean {
    const rows = this.rows();
    const from = this.ahead ?? { row: row.id, column };
    const at = rows.findIndex(({ id }) => id === from.row);
    const names = this.columns().map(({ id }) => id);
    const columnAt = rows[at]?.kind === 'set' ? 0 : names.indexOf(from.column);
    const page = Math.max(1, Math.floor(this.viewport().getViewportSize() / ROW_HEIGHT) - 1);
    const steps: Record<string, readonly [number, number]> = {
      ArrowUp: [-1, 0],
      ArrowDown: [1, 0],
      ArrowLeft: [0, -1],
      ArrowRight: [0, 1],
      PageUp: [-page, 0],
      PageDown: [page, 0],
    };
    const step = steps[event.key];
    if (!step) return false;
    const nextRow = rows[Math.min(rows.length - 1, Math.max(0, at + step[0]))];
    const nextColumn = names[Math.min(names.length - 1, Math.max(0, columnAt + step[1]))];
    this.ahead = { row: nextRow.id, column: nextRow.kind === 'set' ? 'name' : nextColumn };
    this.entered.emit(this.ahead);
    return true;
  }

  private focusCell(active: ActiveCell): void {
    const index = this.rows().findIndex(({ id }) => id === active.row);
    if (index < 0) return;
    const viewport = this.viewport();
    const top = index * ROW_HEIGHT;
    const offset = viewport.measureScrollOffset();
    if (top < offset) viewport.scrollToOffset(top);
    else if (top + ROW_HEIGHT > offset + viewport.getViewportSize()) viewport.scrollToOffset(top + ROW_HEIGHT - viewport.getViewportSize());
    const find = (): HTMLElement | null => this.element.nativeElement.querySelector(`[data-cell="${CSS.escape(`${active.row}:${active.column}`)}"]`);
    const cell = find();
    if (cell) cell.focus();
    else requestAnimationFrame(() => find()?.focus());
  }
}
