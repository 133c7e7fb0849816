import { InteractivityChecker } from '@angular/cdk/a11y';
import { DOCUMENT, Injectable, inject } from '@angular/core';

/** The parts of the page, one after the other by the keyboard. A part says so by `data-region`. */
@Injectable({ providedIn: 'root' })
export class Regions {
  private readonly document = inject(DOCUMENT);
  private readonly checker = inject(InteractivityChecker);

  /** Focuses the part after that which has the focus, or before it. */
  step(by: 1 | -1): void {
    const regions = [...this.document.querySelectorAll<HTMLElement>('[data-region]')].filter((one) =>
      this.checker.isVisible(one),
    );
    if (regions.length === 0) return;
    // A dialog keeps the focus.
    if (this.document.querySelector('[aria-modal="true"]')) return;
    // The innermost that has the focus is the last.
    const here = regions.map((one) => one.contains(this.document.activeElement)).lastIndexOf(true);
    const next = here < 0 ? (by > 0 ? 0 : regions.length - 1) : (here + by + regions.length) % regions.length;
    this.enter(regions[next]);
  }

  /** Focuses what comes first in a part, or the part itself. */
  enter(region: HTMLElement): void {
    const first = [region, ...region.querySelectorAll<HTMLElement>('*')].find(
      (one) => this.checker.isFocusable(one) && this.checker.isTabbable(one) && this.checker.isVisible(one),
    );
    (first ?? region).focus();
  }
}
