import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';

const POINTS = {
  down: 'M1.5 3.5 5 7l3.5-3.5',
  up: 'M1.5 6.5 5 3l3.5 3.5',
  left: 'M6.5 1.5 3 5l3.5 3.5',
  right: 'M3.5 1.5 7 5 3.5 8.5',
} as const;

/** An arrowhead: of a menu, of something that opens and folds, of a way back. */
@Component({
  selector: 'sv-chevron',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<svg viewBox="0 0 10 10" aria-hidden="true"><path [attr.d]="path()" /></svg>`,
  styles: `
    :host {
      display: inline-block;
      flex: none;
      width: 10px;
      height: 10px;
      line-height: 0;
    }
    svg {
      width: 10px;
      height: 10px;
      fill: none;
      stroke: currentcolor;
      stroke-width: 1.6;
    }
  `,
})
export class Chevron {
  readonly to = input<keyof typeof POINTS>('down');
  readonly path = computed(() => POINTS[this.to()]);
}
