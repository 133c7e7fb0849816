import { ChangeDetectionStrategy, Component, input } from '@angular/core';

/** A drawing in a square: lines, and what of it is filled. */
export interface MarkForm {
  readonly lines?: string;
  readonly filled?: string;
  /** Of its lines, as a stroke has them. */
  readonly dashes?: string;
}

/** A mark drawn by lines, in the colour of its text. */
@Component({
  selector: 'sv-mark',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg [attr.viewBox]="'0 0 ' + box() + ' ' + box()" [style.width.px]="pixels()" [style.height.px]="pixels()" aria-hidden="true">
      @if (form().filled; as d) {
        <path class="filled" [attr.d]="d" />
      }
      @if (form().lines; as d) {
        <path [attr.d]="d" [attr.stroke-dasharray]="form().dashes ?? null" />
      }
    </svg>
  `,
  styles: `
    :host {
      display: inline-block;
      flex: none;
      line-height: 0;
    }
    svg {
      fill: none;
      stroke: currentcolor;
      stroke-width: 1.5;
      stroke-linejoin: round;
    }
    .filled {
      fill: currentcolor;
      stroke: none;
    }
  `,
})
export class Mark {
  readonly form = input.required<MarkForm>();
  /** Side of the square that it is drawn in. */
  readonly box = input.required<number>();
  readonly pixels = input.required<number>();
}
