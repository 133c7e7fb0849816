import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { TOOL_MARKS, type ToolMark, type ToolMarkName } from './tool-marks';

/** The mark of a tool, or of what it makes. */
@Component({
  selector: 'sv-tool-mark',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg viewBox="0 0 20 20" aria-hidden="true">
      @if (drawn().filled; as d) {
        <path class="filled" [attr.d]="d" />
      }
      <path [attr.d]="drawn().lines" [attr.stroke-dasharray]="drawn().isDashed ? '2.6 2' : null" />
    </svg>
  `,
  styles: `
    :host {
      display: inline-block;
      flex: none;
      line-height: 0;
    }
    svg {
      width: 18px;
      height: 18px;
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
export class ToolMarkDrawing {
  readonly mark = input.required<ToolMarkName>();
  readonly drawn = computed((): ToolMark => TOOL_MARKS[this.mark()]);
}
