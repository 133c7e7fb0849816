import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';

/** Hides and locks something for one person's eyes alone. */
@Component({
  selector: 'sv-own-eyes',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button
      class="plain quiet"
      [attr.aria-pressed]="isHidden()"
      [title]="isHidden() ? 'Hidden for you; show' : 'Hide for you'"
      [attr.aria-label]="(isHidden() ? 'Show ' : 'Hide ') + name()"
      (click)="hidden.emit()"
    >
      <svg viewBox="0 0 14 14" aria-hidden="true"><path [attr.d]="isHidden() ? 'M1 5c3 4 9 4 12 0M3 7.5 1.8 9.5M7 8.5V11M11 7.5l1.2 2' : 'M1 7c3-5 9-5 12 0-3 5-9 5-12 0zM7 5a2 2 0 1 0 .01 0'" /></svg>
    </button>
    <button
      class="plain quiet"
      [attr.aria-pressed]="isLocked()"
      [title]="isLocked() ? 'Locked for you; unlock' : 'Lock for you'"
      [attr.aria-label]="(isLocked() ? 'Unlock ' : 'Lock ') + name()"
      (click)="locked.emit()"
    >
      <svg viewBox="0 0 14 14" aria-hidden="true"><path [attr.d]="isLocked() ? 'M3 6.5h8V12H3zM4.8 6.5V4a2.2 2.2 0 0 1 4.4 0v2.5' : 'M3 6.5h8V12H3zM4.8 6.5V4a2.2 2.2 0 0 1 4.2-1'" /></svg>
    </button>
  `,
  styles: `
    :host {
      display: flex;
      align-items: center;
    }
    button {
      min-width: 24px;
      min-height: 24px;
      padding: 0;
      text-align: center;
    }
    svg {
      width: 14px;
      height: 14px;
      vertical-align: -3px;
      fill: none;
      stroke: currentcolor;
      stroke-width: 1.4;
    }
  `,
})
export class OwnEyes {
  readonly name = input.required<string>();
  readonly isHidden = input.required<boolean>();
  readonly isLocked = input.required<boolean>();
  readonly hidden = output();
  readonly locked = output();
}
