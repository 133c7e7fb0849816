import { ChangeDetectionStrategy, Component, inject, input } from '@angular/core';
import { Guide } from './guide';
import { KnownDesks } from './known-desks';

/** A question mark in the head of a panel: opens its part of the guide beside the work. */
@Component({
  selector: 'sv-help',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button class="plain" [attr.aria-label]="'Help: ' + what()" title="Open the guide here" (click)="open()">?</button>
  `,
  styles: `
    :host {
      margin-right: auto;
      align-self: center;
    }
    button {
      min-width: 24px;
      min-height: 24px;
      color: var(--soft-ink);
      font-weight: 400;
    }
  `,
})
export class Help {
  private readonly guide = inject(Guide);
  private readonly known = inject(KnownDesks);
  /** Section of the guide, such as 'layout/links'. */
  readonly about = input.required<string>();
  /** What the panel is called. */
  readonly what = input.required<string>();

  /** That of a whole desk brings its first card back, too. */
  open(): void {
    if (!this.about().includes('/')) this.known.bringBack(this.about());
    this.guide.open(this.about());
  }
}
