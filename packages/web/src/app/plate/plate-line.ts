import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { scaleMetres } from './plate-marks';
import type { PlateView } from './plate-view';

/** The line along the plate's foot: a length, where the pointer is, what the drawing means. */
@Component({
  selector: 'sv-plate-line',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <span class="bar" [style.width.px]="metres() * scale()" aria-hidden="true"></span><span class="mono">{{ metres() }} m</span>
    @if (plate()?.pointerAt(); as point) {
      <span class="mono at">X {{ point[0].toFixed(1) }} Y {{ point[1].toFixed(1) }} Z {{ point[2].toFixed(1) }}</span>
    }
    <span class="meaning"><ng-content /></span>
  `,
  styles: `
    :host {
      display: flex;
      align-items: center;
      gap: 8px;
      min-width: 0;
      height: 22px;
      padding: 0 8px;
      border-top: 1px solid var(--line);
      overflow: hidden;
      white-space: nowrap;
      font-size: 12px;
      color: var(--soft-ink);
      background: var(--plate);
    }
    .bar {
      flex: none;
      height: 6px;
      border: solid var(--ink);
      border-width: 0 1px 1px;
    }
    .mono {
      flex: none;
      font-size: 11.5px;
    }
    .at {
      min-width: 168px;
    }
    .meaning {
      display: flex;
      align-items: center;
      justify-content: flex-end;
      gap: 6px;
      flex: 1;
      min-width: 0;
      overflow: hidden;
      text-overflow: ellipsis;
    }
  `,
})
export class PlateLine {
  /** Read here alone: what follows the pointer draws no more of the page anew than this line. */
  readonly plate = input.required<Pick<PlateView, 'planScale' | 'pointerAt'> | undefined>();
  readonly scale = computed(() => this.plate()?.planScale() ?? 1);
  readonly metres = computed(() => scaleMetres(this.scale()));
}
