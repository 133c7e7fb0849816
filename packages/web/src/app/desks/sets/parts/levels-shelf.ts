import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { MEASURES, type Measure } from '../../../bakes/core-bands';
import { DeskFrame, SHELF_PIXELS } from '../../../desk/desk-frame';
import { CoreShelf, FOLDED_PIXELS, type ShelfRow } from '../../../ui/core-shelf';
import { DragBy, type DraggedBy } from '../../../ui/drag-by';

/** Cores are folded when their edge is dragged up to here, CSS pixels. */
const FOLDS_UNDER = (FOLDED_PIXELS + SHELF_PIXELS.least) / 2;

/** The shelf above the table of levels: its measure, its fold, and an edge that makes the cores higher. */
@Component({
  selector: 'sv-levels-shelf',
  imports: [CoreShelf, DragBy],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './levels-shelf.html',
  styleUrl: './levels-shelf.scss',
})
export class LevelsShelf {
  readonly rows = input.required<readonly ShelfRow[]>();
  readonly limit = input.required<{ readonly value: number; readonly name: string }>();
  readonly measure = input.required<Measure>();
  readonly measureChosen = output<Measure>();
  readonly levelChosen = output<string>();
  readonly bandChosen = output<{ core: string; band: string }>();
  protected readonly frame = inject(DeskFrame);
  protected readonly measures = MEASURES;
  protected readonly isFolded = computed(() => !this.frame.isOpen('Shelf', false));
  protected readonly pixels = computed(() => (this.isFolded() ? FOLDED_PIXELS : this.frame.shelfPixels()));
  private from = 0;

  protected drag({ y, isBegun }: DraggedBy): void {
    if (isBegun) {
      this.from = this.pixels();
      return;
    }
    const pixels = this.from + y;
    const isFolded = pixels < FOLDS_UNDER;
    if (isFolded !== this.isFolded()) this.frame.flip('Shelf', false);
    if (!isFolded) this.frame.raiseShelf(pixels);
  }
}
