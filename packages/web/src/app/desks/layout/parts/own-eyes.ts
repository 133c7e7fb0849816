import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';

/** Hides and locks something for one person's eyes alone. */
@Component({
  selector: 'sv-own-eyes',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button
      class="plain"
      [attr.aria-pressed]="isHidden()"
      [title]="isHidden() ? 'Hidden for you; show' : 'Hide for you'"
      [attr.aria-label]="(isHidden() ? 'Show ' : 'Hide ') + name()"
      (click)="hidden.emit()"
    >
      {{ isHidden() ? '—' : '○' }}
    </button>
    <button
      class="plain"
      [attr.aria-pressed]="isLocked()"
      [title]="isLocked() ? 'Locked for you; unlock' : 'Lock for you'"
      [attr.aria-label]="(isLocked() ? 'Unlock ' : 'Lock ') + name()"
      (click)="locked.emit()"
    >
      {{ isLocked() ? '▣' : '▢' }}
    </button>
  `,
  styles: `
    button {
      min-width: 24px;
      min-height: 24px;
      text-align: center;
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
