import { ChangeDetectionStrategy, Component, ElementRef, computed, inject } from '@angular/core';
import { INSET, INSET_BEFORE, type InsetPlace } from '../desk/desk-frame';
import { DragBy, type DraggedBy } from '../ui/drag-by';
import { LevelView } from './level-view';

/** It stays so far within the plate, pixels. */
const MARGIN = 8;

/** What moves, resizes and swaps the smaller view. */
@Component({
  selector: 'sv-inset-handles',
  imports: [DragBy],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button class="size" aria-label="Resize the smaller view" title="Drag to resize" svDragBy (dragged)="resize($event)">
      <svg viewBox="0 0 12 12" aria-hidden="true"><path d="M2 10V2h8M2 2l8 8" /></svg>
    </button>
    <button class="name" aria-label="Move the smaller view" title="Drag to move" svDragBy (dragged)="move($event)">{{ name() }}</button>
    <button class="swap" aria-label="Swap plan and model" title="Swap plan and model  O" (click)="frame.swap()">
      <svg viewBox="0 0 12 12" aria-hidden="true"><path d="M4 10 10 4M5.5 4H10v4.5" /></svg>
    </button>
  `,
  styles: `
    :host {
      position: absolute;
      z-index: 2;
      right: max(8px, min(var(--inset-right), 100% - var(--inset-width) - 8px));
      bottom: calc(
        max(8px, min(var(--inset-bottom), 100% - var(--inset-height) - 8px)) + min(var(--inset-height), 100% - 16px) -
          25px
      );
      display: flex;
      align-items: center;
      width: min(var(--inset-width), 100% - 16px);
      height: 24px;
      padding: 1px;
    }
    button {
      height: 22px;
      min-width: 24px;
      padding: 0 4px;
      border: 0;
      background: color-mix(in srgb, var(--raised) 88%, transparent);
      color: var(--soft-ink);
      font: inherit;
      font-size: 12px;
      touch-action: none;
    }
    .name {
      flex: 1;
      text-align: left;
      cursor: move;
    }
    .size {
      cursor: nwse-resize;
    }
    .swap {
      cursor: pointer;
    }
    svg {
      width: 12px;
      height: 12px;
      fill: none;
      stroke: currentcolor;
      stroke-width: 1.4;
    }
  `,
})
export class InsetHandles {
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly view = inject(LevelView);
  readonly frame = this.view.frame;
  readonly name = computed(() => (this.frame.isSwapped() ? 'Plan' : `Model, to ${this.view.range().top} m`));
  private from = INSET_BEFORE;

  move({ x, y, isBegun }: DraggedBy): void {
    if (isBegun) this.from = this.frame.inset();
    this.put({ ...this.from, right: this.from.right - x, bottom: this.from.bottom - y });
  }

  resize({ x, y, isBegun }: DraggedBy): void {
    if (isBegun) this.from = this.frame.inset();
    this.put({ ...this.from, width: this.from.width - x, height: this.from.height - y });
  }

  /** Keeps it within the plate. */
  private put({ right, bottom, width, height }: InsetPlace): void {
    const plate = this.host.parentElement?.getBoundingClientRect();
    if (!plate) return;
    const within = (value: number, least: number, most: number): number =>
      Math.round(Math.max(least, Math.min(most, value)));
    const [w, h] = [
      within(width, INSET.least, Math.min(INSET.most, plate.width - 2 * MARGIN)),
      within(height, INSET.least, Math.min(INSET.most, plate.height - 2 * MARGIN)),
    ];
    this.frame.put({
      inset: {
        width: w,
        height: h,
        right: within(right, MARGIN, plate.width - w - MARGIN),
        bottom: within(bottom, MARGIN, plate.height - h - MARGIN),
      },
    });
  }
}
