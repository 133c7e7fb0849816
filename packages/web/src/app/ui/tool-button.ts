import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { TOOL_MARKS, type ToolMark, type ToolMarkName } from './tool-marks';

/** A tool of a desk: its mark over its key. */
@Component({
  selector: 'sv-tool',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button [attr.aria-pressed]="isOn()" [attr.aria-label]="name()" [title]="title()" (click)="chosen.emit()">
      <svg viewBox="0 0 20 20" aria-hidden="true">
        @if (drawn().filled; as d) {
          <path class="filled" [attr.d]="d" />
        }
        <path [attr.d]="drawn().lines" [attr.stroke-dasharray]="drawn().isDashed ? '2.6 2' : null" />
      </svg>
      <kbd aria-hidden="true">{{ key() }}</kbd>
    </button>
  `,
  styles: `
    button {
      display: grid;
      justify-items: center;
      align-content: center;
      width: 32px;
      height: 34px;
      padding: 0;
      border: 0;
      border-radius: 3px;
      background: none;
      color: var(--ink);
      cursor: pointer;
    }
    button:hover {
      background: var(--brine-wash);
    }
    button[aria-pressed='true'] {
      background: var(--ink);
      color: var(--paper);
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
    kbd {
      font-size: 10.5px;
      line-height: 12px;
      min-height: 12px;
      color: inherit;
    }
  `,
})
export class ToolButton {
  readonly mark = input.required<ToolMarkName>();
  readonly name = input.required<string>();
  readonly key = input('');
  readonly hint = input('');
  readonly isOn = input(false);
  readonly chosen = output();
  readonly drawn = computed((): ToolMark => TOOL_MARKS[this.mark()]);
  readonly title = computed(
    () => [this.name(), this.key()].filter(Boolean).join('  ') + (this.hint() ? `: ${this.hint()}` : ''),
  );
}
