import { ChangeDetectionStrategy, Component, ElementRef, computed, inject, input } from '@angular/core';
import type { StratumRole } from '@stravel/core';
import { DragBy, type DraggedBy } from '../../ui/drag-by';
import { LevelView } from '../level-view';
import type { Bore } from './bore';

/** No more ticks than this are told apart. */
const MAX_TICKS = 24;
/** Where the plan's heights begin when nothing stands yet, storeys about them. */
const BARE_STOREYS = 1;
const LEAST_METRES = 0.1;

/** A bore through the level along the plate's edge: what lies at which height, and two handles for the heights that are shown. */
@Component({
  selector: 'sv-storey-rod',
  imports: [DragBy],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="rod" (dblclick)="all()" [title]="title()">
      @for (band of bands(); track band.top) {
        <i [class]="'band role-' + band.role" [style.top.%]="band.top" [style.height.%]="band.height"></i>
      }
      @for (tick of ticks(); track tick.top) {
        <b [class.now]="tick.isNow" [style.top.%]="tick.top">{{ tick.text }}</b>
      }
      <div class="shown" [style.top.%]="topOf(range().top)" [style.height.%]="topOf(range().bottom) - topOf(range().top)" svDragBy (dragged)="move($event)"></div>
      <div
        class="handle"
        role="slider"
        tabindex="0"
        aria-label="Highest height shown"
        aria-orientation="vertical"
        [attr.aria-valuemin]="scale().low"
        [attr.aria-valuemax]="scale().high"
        [attr.aria-valuenow]="range().top"
        [attr.aria-valuetext]="range().top + ' metres'"
        [style.top.%]="topOf(range().top)"
        svDragBy
        (dragged)="moveTop($event)"
      ></div>
      <div
        class="handle"
        role="slider"
        tabindex="0"
        aria-label="Lowest height shown"
        aria-orientation="vertical"
        [attr.aria-valuemin]="scale().low"
        [attr.aria-valuemax]="scale().high"
        [attr.aria-valuenow]="range().bottom"
        [attr.aria-valuetext]="range().bottom + ' metres'"
        [style.top.%]="topOf(range().bottom)"
        svDragBy
        (dragged)="moveBottom($event)"
      ></div>
    </div>
  `,
  styleUrl: './storey-rod.scss',
})
export class StoreyRod {
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly view = inject(LevelView);
  readonly bore = input<Bore>();
  readonly roles = input.required<ReadonlyMap<string, StratumRole>>();
  readonly range = this.view.range;
  private from = { bottom: 0, storeyMetres: 0 };

  /** Heights at the ends of the rod. */
  readonly scale = computed(() => {
    const { bottom, top } = this.range();
    const bore = this.bore();
    const storey = Math.max(LEAST_METRES, top - bottom);
    const low = Math.min(bottom, bore?.low ?? bottom - BARE_STOREYS * storey);
    const high = Math.max(top, bore?.high ?? top + BARE_STOREYS * storey);
    return { low, high };
  });
  readonly bands = computed(() =>
    (this.bore()?.bands ?? []).map(({ stratum, low, high }) => ({
      role: this.roles().get(stratum) ?? 'section',
      top: this.topOf(high),
      height: this.topOf(low) - this.topOf(high),
    })),
  );
  readonly ticks = computed(() => {
    const { low, high } = this.scale();
    const { bottom, storeyMetres } = this.view.shown();
    const every = Math.max(1, Math.ceil((high - low) / storeyMetres / MAX_TICKS));
    const first = Math.ceil((low - bottom) / storeyMetres / every) * every;
    const ticks: { text: string; top: number; isNow: boolean }[] = [];
    for (let n = first; bottom + n * storeyMetres < high - 1e-9 && ticks.length <= MAX_TICKS; n += every)
      ticks.push({
        text: String(this.view.storeyOf(bottom + n * storeyMetres)),
        top: this.topOf(bottom + n * storeyMetres),
        isNow: n === 0,
      });
    return ticks;
  });
  readonly title = computed(() => {
    const { bottom, top } = this.range();
    return `Shown: ${bottom} to ${top} m. Drag the handles, or , and . for a storey down and up; double-click shows all.`;
  });

  topOf(height: number): number {
    const { low, high } = this.scale();
    return ((high - height) / (high - low)) * 100;
  }

  all(): void {
    const bore = this.bore();
    if (bore)
      this.view.put({
        bottom: toHundredths(bore.low),
        storeyMetres: Math.max(LEAST_METRES, toHundredths(bore.high - bore.low) + 0.01),
      });
  }

  move(by: DraggedBy): void {
    const { bottom } = this.taken(by);
    this.view.put({ bottom: toHundredths(bottom - this.metres(by)) });
  }

  moveTop(by: DraggedBy): void {
    const { storeyMetres } = this.taken(by);
    this.view.put({ storeyMetres: Math.max(LEAST_METRES, toHundredths(storeyMetres - this.metres(by))) });
  }

  moveBottom(by: DraggedBy): void {
    const { bottom, storeyMetres } = this.taken(by);
    const metres = Math.max(LEAST_METRES, toHundredths(storeyMetres + this.metres(by)));
    this.view.put({ bottom: toHundredths(bottom + storeyMetres - metres), storeyMetres: metres });
  }

  /** What was shown when the drag began. */
  private taken({ isBegun }: DraggedBy): { readonly bottom: number; readonly storeyMetres: number } {
    if (isBegun) {
      const { bottom, storeyMetres } = this.view.shown();
      this.from = { bottom, storeyMetres };
      this.taking = this.scale();
    }
    return this.from;
  }

  /** Ends of the rod when the drag began: they follow what is shown. */
  private taking = { low: 0, high: 1 };

  private metres({ y }: DraggedBy): number {
    return (y / Math.max(1, this.host.clientHeight)) * (this.taking.high - this.taking.low);
  }
}

const toHundredths = (metres: number): number => Math.round(metres * 100) / 100;
