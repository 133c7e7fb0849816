import { CountedPipe } from '../../../ui/counted-pipe';
import { TableBody, TableFrame } from '../../../ui/table-frame';
import { CdkDrag, type CdkDragDrop, CdkDragHandle, CdkDropList } from '@angular/cdk/drag-drop';
import { CdkVirtualScrollViewport, ScrollingModule } from '@angular/cdk/scrolling';
import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  ElementRef,
  afterNextRender,
  afterRenderEffect,
  computed,
  inject,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { MatMenuModule, type MatMenuTrigger } from '@angular/material/menu';
import {
  equalJson,
  fieldText,
  type Field,
  type FieldValue,
  type FigureOf,
  type FilledRecord,
  type LevelSet,
  type LinkLookup,
} from '@stravel/core';
import type { ActiveCell } from '../store/sets-store';
import { cellText, cellValue, isReadOnly, type TableColumn, type TableRow } from '../table-rows';
import { copyRange, fillDown, pasteInto, rangeBetween, type CellRange, type PastedCells } from '../bulk/cell-range';
import { ColumnLayout, dragEdge } from './column-layout';
import { CellEditor, type SuggestLinks } from './cell-editor';
import type { UploadPicture } from './picture-editor';
import { focusAfterMenu } from '../../../ui/context-menus';
import { TickRange } from '../../../ui/tick-range';

/** What was asked of a row through its menu or keys. */
export type RowRequest =
  | 'open'
  | 'card'
  | 'duplicate'
  | 'up'
  | 'down'
  | 'bin'
  | 'new-level'
  | 'new-set'
  | 'move'
  | 'uses'
  | 'order'
  | 'history'
  | 'picture of plan'
  | 'picture of model';

export const ROW_HEIGHT = 30;
/** Sets with levels, or a register's entries, in lines; cells are edited in place. Only the lines in view exist. */
@Component({
  selector: 'sv-record-table',
  imports: [
    CdkDrag,
    CdkDragHandle,
    CdkDropList,
    CellEditor,
    CountedPipe,
    MatMenuModule,
    ScrollingModule,
    TableBody,
    TableFrame,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: {
    '(focusin)': 'focusMoved($event.target)',
    '(focusout)': 'focusMoved($event.relatedTarget)',
    '(copy)': 'copy($event)',
    '(paste)': 'paste($event)',
  },
  templateUrl: './record-table.html',
  styleUrls: ['../../../ui/table-lines.scss', './record-table.scss'],
})
export class RecordTable {
  private readonly element = inject<ElementRef<HTMLElement>>(ElementRef);
  readonly rows = input.required<readonly TableRow[]>();
  readonly columns = input.required<readonly TableColumn[]>();
  readonly active = input.required<ActiveCell | null>();
  readonly editing = input.required<boolean>();
  readonly chosen = input.required<ReadonlySet<string>>();
  readonly openLevel = input<string>();
  readonly links = input.required<LinkLookup>();
  readonly suggest = input<SuggestLinks>(() => []);
  readonly upload = input<UploadPicture>();
  /** How many columns, from the first, stay in view when the table scrolls sideways. */
  readonly frozen = input(0);
  readonly figureOf = input<FigureOf>(() => null);
  /** What stands in the lines: decides what their menus offer. */
  readonly holds = input<'levels' | 'entries'>('levels');
  /** Whether a line has a card beside the table. */
  readonly hasCard = input(false);

  readonly entered = output<ActiveCell>();
  readonly editStarted = output<ActiveCell>();
  readonly editEnded = output();
  readonly valueChanged = output<{ record: FilledRecord; column: TableColumn; value: FieldValue }>();
  readonly columnOpened = output<TableColumn>();
  readonly columnSized = output<{ column: string; pixels: number }>();
  /** A cell that cannot be written was entered as if to write. */
  readonly explained = output<{ record: FilledRecord; column: TableColumn }>();
  /** Cells to be written together, and what was done in words. */
  readonly cellsWritten = output<{ title: string; cells: PastedCells }>();
  readonly setRenamed = output<{ set: LevelSet; name: string }>();
  /** Ids of lines that were ticked or unticked: several where Shift took a range. */
  readonly toggled = output<readonly string[]>();
  readonly folded = output<string>();
  readonly requested = output<{ row: TableRow; request: RowRequest }>();
  readonly dropped = output<{ row: TableRow; before: TableRow | undefined }>();

  private readonly viewport = viewChild.required(CdkVirtualScrollViewport);
  readonly rowHeight = ROW_HEIGHT;
  readonly layout = new ColumnLayout(this.columns, this.frozen);
  readonly setName: Field = {
    id: 'name',
    key: 'name',
    name: 'Name',
    type: 'text',
    choices: [],
    order: '',
    required: true,
  };
  readonly rowId = (_index: number, row: TableRow): string => row.id;

  /** The other end of a range of cells; the active cell is the one. */
  private readonly anchor = signal<ActiveCell | undefined>(undefined);
  readonly range = computed((): CellRange | undefined => {
    const [anchor, active] = [this.anchor(), this.active()];
    return anchor && active ? rangeBetween(this.rows(), this.columns(), anchor, active) : undefined;
  });

  private readonly ticks = new TickRange();
  private held = false;
  /** The button whose menu was opened last. */
  private asking: HTMLElement | undefined;
  /** The active cell when the table was drawn last. */
  private shown: ActiveCell | null = null;
  /** Where keys have led already while the page has not drawn it yet, so that fast keys all count. */
  private ahead: ActiveCell | undefined;

  constructor() {
    const destroyed = inject(DestroyRef);
    afterNextRender(() => {
      // A card beside it takes and gives back room without the window changing.
      const sizes = new ResizeObserver(() => this.follow());
      sizes.observe(this.viewport().elementRef.nativeElement);
      destroyed.onDestroy(() => sizes.disconnect());
    });
    afterRenderEffect(() => {
      const active = this.active();
      this.rows();
      this.ahead = undefined;
      const focused = document.activeElement;
      const isNew = active !== this.shown;
      this.shown = active;
      // A line that moved takes the focus away with its element; one who was led here from elsewhere has nothing in hand yet.
      const isBare = focused === document.body && (this.held || isNew);
      // Lines that change take nothing from one who is elsewhere in the table, but a cell may be another's by now.
      const isOther =
        focused instanceof HTMLElement &&
        focused.dataset['cell'] !== undefined &&
        focused.dataset['cell'] !== `${active?.row ?? ''}:${active?.column ?? ''}`;
      const moved = (isNew || isOther) && this.element.nativeElement.contains(focused);
      // Tracked: a column that keys led to is drawn only once the table was scrolled to it.
      if (active && !this.editing() && (isBare || moved)) this.focusCell(active);
      // The editor of something new takes the focus itself, once it is there.
      else if (active && this.editing() && isNew) this.reveal(active);
    });
  }

  /** What a cell holds and shows. */
  cell(record: FilledRecord, column: TableColumn): { value: FieldValue; text: string } {
    const value = cellValue(record, column, this.figureOf());
    const text = cellText(value, column, this.links());
    return { value, text: value !== null && column.state?.(record) === 'bound' ? `at most ${text}` : text };
  }

  isInRange(line: number, column: number): boolean {
    const range = this.range();
    return (
      range !== undefined && line >= range.top && line <= range.bottom && column >= range.left && column <= range.right
    );
  }

  /** A click goes to a cell; with Shift it reaches from the one before. */
  enter(event: MouseEvent, row: TableRow, column: string): void {
    if (this.editing() && this.isActive(row, column)) return;
    this.anchor.set(event.shiftKey ? (this.anchor() ?? this.active() ?? undefined) : undefined);
    this.ahead = { row: row.id, column };
    this.entered.emit(this.ahead);
  }

  copy(event: ClipboardEvent): void {
    const range = this.wholeRange();
    if (this.editing() || !range || !event.clipboardData) return;
    event.preventDefault();
    event.clipboardData.setData('text/plain', copyRange(this.rows(), this.columns(), range, this.plainText));
  }

  paste(event: ClipboardEvent): void {
    const range = this.wholeRange();
    const text = event.clipboardData?.getData('text/plain') ?? '';
    if (this.editing() || !range || text === '') return;
    event.preventDefault();
    this.cellsWritten.emit({ title: 'Paste', cells: pasteInto(this.rows(), this.columns(), range, text) });
  }

  /** The range, or the active cell alone. */
  private wholeRange(): CellRange | undefined {
    // Keys may be ahead of what is drawn.
    const active = this.ahead ?? this.active();
    return active ? rangeBetween(this.rows(), this.columns(), this.anchor() ?? active, active) : undefined;
  }

  private readonly plainText = (record: FilledRecord, column: TableColumn): string => {
    const value = cellValue(record, column, this.figureOf());
    return isReadOnly(column) ? String(value ?? '') : fieldText(column.field, value, this.links());
  };

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
    const request = this.requestOf(event);
    const range = this.anchor() ? this.wholeRange() : undefined;
    if (range && event.key === 'Enter' && (event.ctrlKey || event.metaKey)) {
      this.cellsWritten.emit({
        title: 'Fill down',
        cells: { texts: fillDown(this.rows(), this.columns(), range, this.plainText), beyond: 0 },
      });
    } else if (request) this.requested.emit({ row, request });
    else if (event.key === 'Enter' || event.key === 'F2') this.startAt(row, column);
    else if (event.key === ' ') {
      if (row.kind === 'record') this.toggled.emit([row.id]);
      else this.folded.emit(row.id);
    } else if (!this.move(event, row, column)) return;
    event.preventDefault();
    event.stopPropagation();
  }

  editSet(set: LevelSet, name: string): void {
    if (name.trim() !== '' && name !== set.name) this.setRenamed.emit({ set, name: name.trim() });
    this.editEnded.emit();
  }

  edit(record: FilledRecord, column: TableColumn, value: FieldValue): void {
    if (!equalJson(value, cellValue(record, column, this.figureOf())))
      this.valueChanged.emit({ record, column, value });
    this.editEnded.emit();
  }

  start(row: TableRow, column: TableColumn): void {
    if (row.kind === 'record' && isReadOnly(column)) this.explained.emit({ record: row.record, column });
    else if (row.kind !== 'group') this.editStarted.emit({ row: row.id, column: column.id });
  }

  tick({ shiftKey }: MouseEvent, id: string): void {
    const list = this.rows().flatMap((row) => (row.kind === 'record' ? [row.id] : []));
    this.toggled.emit(this.ticks.click(id, shiftKey, list, this.chosen()));
  }

  /** Opens the one menu of all lines beside the button that asked for it, or where a line was clicked with the right button. */
  openMenu(event: MouseEvent, row: TableRow, trigger: MatMenuTrigger): void {
    event.preventDefault();
    const button = event.currentTarget as HTMLElement;
    const rect = button.getBoundingClientRect();
    const isPointed = event.type === 'contextmenu';
    const [left, bottom] = isPointed ? [event.clientX, event.clientY] : [rect.left, rect.bottom];
    const anchor = this.element.nativeElement.querySelectorAll<HTMLElement>('.anchor');
    for (const one of anchor) Object.assign(one.style, { left: `${left}px`, top: `${bottom}px` });
    this.asking = isPointed && document.activeElement instanceof HTMLElement ? document.activeElement : button;
    trigger.menuData = { row };
    trigger.openMenu();
  }

  menuClosed(): void {
    focusAfterMenu(this.asking);
  }

  /** Assets of a picture cell. */
  pictures(value: FieldValue): readonly string[] {
    return [value].flat().filter((name): name is string => typeof name === 'string' && name !== '');
  }

  /** Follows the pointer with the right edge of a column; the view's panel has the same for keys. */
  size(event: PointerEvent, { id: column }: TableColumn): void {
    dragEdge(event, (pixels) => this.columnSized.emit({ column, pixels }));
  }

  follow(): void {
    this.layout.follow(this.viewport().elementRef.nativeElement);
  }

  drop(event: CdkDragDrop<unknown>): void {
    const start = this.viewport().getRenderedRange().start;
    const row = event.item.data as TableRow;
    const rest = this.rows().filter((other) => other.id !== row.id);
    this.dropped.emit({ row, before: rest.at(event.currentIndex + start) });
  }

  private startAt(row: TableRow, id: string): void {
    const column = this.columns().find((one) => one.id === id);
    if (column) this.start(row, column);
  }

  private requestOf(event: KeyboardEvent): RowRequest | undefined {
    if (event.altKey && event.key === 'Enter' && this.hasCard()) return 'card';
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
    const columnAt = rows[at]?.kind !== 'record' ? 0 : names.indexOf(from.column);
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
    this.anchor.set(event.shiftKey ? (this.anchor() ?? from) : undefined);
    this.ahead = { row: nextRow.id, column: nextRow.kind === 'record' ? nextColumn : 'name' };
    this.entered.emit(this.ahead);
    return true;
  }

  /** Scrolls to a cell. @returns whether there is one */
  private reveal(active: ActiveCell): boolean {
    const index = this.rows().findIndex(({ id }) => id === active.row);
    if (index < 0) return false;
    const viewport = this.viewport();
    const top = index * ROW_HEIGHT;
    const offset = viewport.measureScrollOffset();
    if (top < offset) viewport.scrollToOffset(top);
    else if (top + ROW_HEIGHT > offset + viewport.getViewportSize())
      viewport.scrollToOffset(top + ROW_HEIGHT - viewport.getViewportSize());
    this.layout.reveal(active.column, viewport.elementRef.nativeElement);
    return true;
  }

  private focusCell(active: ActiveCell): void {
    if (!this.reveal(active)) return;
    const wanted = `${active.row}:${active.column}`;
    const find = (): HTMLElement | undefined =>
      [...this.element.nativeElement.querySelectorAll<HTMLElement>('[data-cell]')].find(
        ({ dataset }) => dataset['cell'] === wanted,
      );
    const cell = find();
    if (cell) cell.focus();
    else requestAnimationFrame(() => find()?.focus());
  }
}
