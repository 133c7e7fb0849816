import { computed, signal, type Signal } from '@angular/core';
import { MIN_COLUMN_PIXELS, MAX_COLUMN_PIXELS } from '@stravel/core';
import type { TableColumn } from '../table-rows';

const COLUMN_GAP = 8;
/** Grip, choice and number, which stand before the columns. */
const LEADING_PIXELS = [22, 28, 44];
const MENU_PIXELS = 34;
const LEADING_END = LEADING_PIXELS.reduce((sum, pixels) => sum + pixels + COLUMN_GAP, 0);
/** Columns this far out of sight are kept ready, pixels. */
const SPARE_PIXELS = 40;

/** The least that a column's width allows, pixels. */
const leastPixels = (width: string): number => parseFloat(width.replace('minmax(', ''));

/** Where the columns of a table stand, which of them stay in view, and which are seen at all. */
export class ColumnLayout {
  /** How far the table is scrolled sideways, and how much of it is seen, pixels. */
  private readonly sideways = signal({ left: 0, width: innerWidth });

  /** Below this the table scrolls sideways. */
  readonly leastWidth = computed(() =>
    this.columns().reduce((sum, { width }) => sum + leastPixels(width) + COLUMN_GAP, LEADING_END + MENU_PIXELS),
  );
  /** Where each leading cell and each frozen column stays, pixels from the left; undefined for what scrolls. */
  readonly stays = computed((): readonly (number | undefined)[] => {
    const widths = [...LEADING_PIXELS, ...this.columns().map(({ width }) => leastPixels(width))];
    const last = this.frozen() > 0 ? LEADING_PIXELS.length + this.frozen() : 0;
    let left = 0;
    return widths.map((pixels, i) => {
      const at = i < last ? left : undefined;
      left += pixels + COLUMN_GAP;
      return at;
    });
  });
  readonly template = computed(() => {
    // Widths that are known beforehand spare the browser the measuring of every line.
    const isWide = this.leastWidth() > this.sideways().width;
    const widths = this.columns().map(({ width }, i) =>
      isWide || i < this.frozen() ? `${leastPixels(width)}px` : width,
    );
    return [...LEADING_PIXELS.map((pixels) => `${pixels}px`), ...widths, `${MENU_PIXELS}px`].join(' ');
  });
  /** Where columns begin and end, pixels from the left, each at its least width. */
  private readonly edges = computed(() => {
    let at = LEADING_END;
    return this.columns().map(({ width }) => {
      const left = at;
      at += leastPixels(width) + COLUMN_GAP;
      return { left, right: at };
    });
  });
  /** First and last column that are seen besides the frozen ones. */
  private readonly inSight = computed(
    () => {
      const { left, width } = this.sideways();
      const [edges, frozen] = [this.edges(), this.frozen()];
      // A table that fits stretches its columns: none of them is out of sight.
      if (this.leastWidth() <= width) return { first: frozen, last: edges.length - 1 };
      const first = edges.findIndex(({ right }, i) => i >= frozen && right > left + this.covered() - SPARE_PIXELS);
      const beyond = edges.findIndex((edge) => edge.left > left + width + SPARE_PIXELS);
      return { first: first < 0 ? edges.length : first, last: (beyond < 0 ? edges.length : beyond) - 1 };
    },
    { equal: (a, b) => a.first === b.first && a.last === b.last },
  );
  /** Columns that are seen, with their places: of a wide table only their cells exist. */
  readonly drawn = computed(() => {
    const { first, last } = this.inSight();
    const frozen = this.frozen();
    return this.columns().flatMap((column, index) =>
      index < frozen || (index >= first && index <= last) ? [{ column, index }] : [],
    );
  });

  constructor(
    private readonly columns: Signal<readonly TableColumn[]>,
    private readonly frozen: Signal<number>,
  ) {}

  /** Takes in how the table is scrolled and sized now. */
  follow({ scrollLeft, clientWidth }: HTMLElement): void {
    const { left, width } = this.sideways();
    if (scrollLeft !== left || clientWidth !== width)
      this.sideways.set({ left: scrollLeft, width: clientWidth || innerWidth });
  }

  /** Brings a column into sight, right of the frozen ones. */
  reveal(id: string, element: HTMLElement): void {
    const index = this.columns().findIndex((column) => column.id === id);
    const frozen = this.frozen();
    if (index < frozen || this.leastWidth() <= element.clientWidth) return;
    const { left, right } = this.edges()[index];
    if (left < element.scrollLeft + this.covered())
      element.scrollLeft = index === frozen ? 0 : left - this.covered() - COLUMN_GAP;
    else if (right > element.scrollLeft + element.clientWidth) element.scrollLeft = right - element.clientWidth;
    this.follow(element);
  }

  /** Up to where frozen columns lie over the others, pixels from the left of what is seen. */
  private covered(): number {
    return this.frozen() > 0 ? this.edges()[this.frozen() - 1].right : 0;
  }
}

/** Tells the width of a column while a pointer drags its right edge, from within the bounds for widths. */
export function dragEdge(event: PointerEvent, tell: (pixels: number) => void): void {
  const handle = event.target as HTMLElement;
  const from = handle.parentElement?.getBoundingClientRect().width ?? MIN_COLUMN_PIXELS;
  const start = event.clientX;
  event.preventDefault();
  handle.setPointerCapture(event.pointerId);
  const move = ({ clientX }: PointerEvent): void =>
    tell(Math.round(Math.min(MAX_COLUMN_PIXELS, Math.max(MIN_COLUMN_PIXELS, from + clientX - start))));
  handle.addEventListener('pointermove', move);
  handle.addEventListener('pointerup', () => handle.removeEventListener('pointermove', move), { once: true });
}
