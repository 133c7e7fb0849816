import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { ToolMarkDrawing } from './tool-mark';
import type { ToolMarkName } from './tool-marks';

/** A tool of a desk: its mark over its key. */
@Component({
  selector: 'sv-tool',
  imports: [ToolMarkDrawing],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button [attr.aria-pressed]="isOn()" [attr.aria-label]="name()" [title]="title()" (click)="chosen.emit()">
      <sv-tool-mark [mark]="mark()" />
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
  readonly title = computed(
    () => [this.name(), this.key()].filter(Boolean).join('  ') + (this.hint() ? `: ${this.hint()}` : ''),
  );
}
