import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { StateMark, type StateMarkName } from './state-mark';

/** Filters what is shown by a state; says how many there are of it. */
@Component({
  selector: 'sv-state-chip',
  imports: [StateMark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button [attr.aria-pressed]="pressed()" [title]="name()" (click)="pick.emit()">
      @if (mark(); as one) {
        <sv-state-mark [of]="one" />
      }
      <span [class.visually-hidden]="isCompact()">{{ name() }}</span> <span class="soft">{{ count() }}</span>
    </button>
  `,
  styles: `
    :host {
      flex: none;
    }
    button {
      display: flex;
      align-items: center;
      gap: 6px;
      height: 26px;
      padding: 0 11px;
      border: 1px solid var(--line);
      border-radius: 13px;
      background: none;
      color: var(--ink);
      font: inherit;
      cursor: pointer;
      white-space: nowrap;
    }
    button:hover {
      border-color: var(--soft-ink);
    }
    button[aria-pressed='true'] {
      border: 2px solid var(--ink);
      padding: 0 10px;
      background: var(--raised);
      font-weight: 600;
    }
  `,
})
export class StateChip {
  readonly mark = input<StateMarkName>();
  readonly name = input.required<string>();
  readonly count = input.required<number>();
  readonly pressed = input.required<boolean>();
  /** Without room its name is left to its mark. */
  readonly isCompact = input(false);
  readonly pick = output();
}
