import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import type { HeldFigure } from '@stravel/core';
import { CoreSample, type CoreBand } from './core-sample';

/** One core of the shelf. */
export interface ShelfCore {
  readonly id: string;
  readonly name: string;
  readonly bands: readonly CoreBand[];
  readonly total: number;
  readonly totalText: string;
  /** The total, its share of the limit, and how far it can be trusted. */
  readonly held: HeldFigure;
  readonly selected: boolean;
}

/** The cores of one set. */
export interface ShelfRow {
  readonly id: string;
  readonly name: string;
  readonly text: string;
  readonly cores: readonly ShelfCore[];
}

/** How much of a shelf is shown: names under the cores; low cores; or cores of middle height without names. */
export type ShelfForm = 'open' | 'folded' | 'summary';

/** Height of the cores of a folded shelf, CSS pixels. */
export const FOLDED_PIXELS = 40;
const SUMMARY_PIXELS = 72;
const NAMES_PIXELS = 72;
const LABEL_PIXELS = 16;
/** Room above the tallest core for the share that it is over. */
const HEADROOM = 1.22;

/** Cores side by side by set, with the budget line across all of them. */
@Component({
  selector: 'sv-core-shelf',
  imports: [CoreSample],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p class="said figure" aria-hidden="true">{{ said() }}</p>
    <div [class]="'shelf ' + form()">
      @for (row of rows(); track row.id) {
        <section [style.flex-grow]="row.cores.length">
          <header>
            <h3>{{ row.name }}</h3>
            <p class="soft" [title]="row.text">{{ row.text }}</p>
          </header>
          <div class="cores" [style.height.px]="height()">
            @for (core of row.cores; track core.id) {
              <div class="core" [class.selected]="core.selected">
                @if (core.total > limit() && limit() > 0 && form() !== 'folded') {
                  <span class="over figure" [style.bottom.px]="heightOf(core.total) + 2">+{{ percentOver(core.total) }}%</span>
                }
                <sv-core-sample
                  [bands]="core.bands"
                  [held]="core.held"
                  [height]="height()"
                  [top]="top()"
                  (chosen)="bandPicked.emit({ core: core.id, band: $event })"
                  (hovered)="said.set($event ? core.name + ' · ' + $event : '')"
                />
              </div>
            }
            @if (limit() <= top()) {
              <span class="limit" [style.bottom.px]="heightOf(limit())"></span>
            }
          </div>
          @if (form() === 'open') {
            <div class="names">
              @for (core of row.cores; track core.id) {
                <button class="plain" tabindex="-1" [title]="core.name + ' · ' + core.totalText" (click)="picked.emit(core.id)">
                  <span>{{ core.name }}</span>
                </button>
              }
            </div>
          }
        </section>
      }
      <span class="limit-name figure" [style.bottom.px]="labelPixels()">{{ limitName() }}{{ limit() > top() ? ', above this scale' : '' }}</span>
    </div>
  `,
  styleUrl: './core-shelf.scss',
})
export class CoreShelf {
  readonly rows = input.required<readonly ShelfRow[]>();
  readonly limit = input.required<number>();
  readonly limitName = input.required<string>();
  readonly picked = output<string>();
  readonly bandPicked = output<{ core: string; band: string }>();
  /** The band under the pointer, in words. */
  readonly said = signal('');
  /** Where names are not shown, the pointer tells them. */
  readonly form = input<ShelfForm>('open');
  /** Height of the cores where it is open, CSS pixels. */
  readonly openPixels = input(104);
  readonly height = computed(
    () => ({ open: this.openPixels(), folded: FOLDED_PIXELS, summary: SUMMARY_PIXELS })[this.form()],
  );
  private readonly namesPixels = computed(() => (this.form() === 'open' ? NAMES_PIXELS : 0));
  /** Height of the label: beside the line, or just under the top of the cores when the line lies there or above the scale. */
  readonly labelPixels = computed(
    () => this.namesPixels() + Math.min(this.height() - LABEL_PIXELS, this.heightOf(this.limit())),
  );
  /** Top of the scale: a little over the largest core, and over the limit unless that is far away from what is known. */
  readonly top = computed(() => {
    const most = Math.max(0, ...this.rows().flatMap(({ cores }) => cores.map(({ total }) => total)));
    const isNear = most === 0 || this.limit() < most * 4;
    return Math.max(1e-9, isNear ? Math.max(most, this.limit()) : most) * HEADROOM;
  });

  heightOf(value: number): number {
    return Math.min(this.height() + 4, (value / this.top()) * this.height());
  }

  percentOver(total: number): number {
    return Math.round((total / this.limit() - 1) * 100);
  }
}
