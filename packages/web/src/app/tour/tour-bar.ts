import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { Tour } from './tour';

/** One line above the foot: where the tour through the demo's faults stands. */
@Component({
  selector: 'sv-tour-bar',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @switch (tour.is()) {
      @case ('offered') {
        <section aria-label="Tour" data-region tabindex="-1">
          <span>{{ tour.faults }} faults are hidden in this demo.</span>
          <button class="chip strong" (click)="tour.begin()">Show me the first</button>
          <button class="chip" (click)="tour.leave()">Not now</button>
        </section>
      }
      @case ('on') {
        <section aria-label="Tour" data-region tabindex="-1">
          <span class="mono soft">{{ tour.number() }} of {{ tour.count }}</span>
          <span class="text" aria-live="polite">
            <span
              ><b>{{ tour.stop().wrong }}</b> {{ tour.stop().fix }}</span
            >
            <span class="soft">
              @if (tour.before() && tour.before() !== tour.now().text) {
                Before: {{ tour.before() }}.
              }
              Now:
              <span [class.good]="tour.now().isFixed">{{ tour.now().isFixed ? '✓ ' : '' }}{{ tour.now().text }}</span></span
            >
          </span>
          <button class="chip" (click)="tour.open()">Take me there</button>
          <button class="chip" [disabled]="tour.number() === 1" (click)="tour.next(-1)">Back</button>
          <button class="chip" [class.strong]="tour.now().isFixed" [disabled]="tour.number() === tour.count" (click)="tour.next(1)">Next</button>
          <button class="chip" (click)="tour.leave()">Leave tour</button>
        </section>
      }
    }
  `,
  styles: `
    :host {
      display: block;
    }
    section {
      display: flex;
      align-items: center;
      gap: 10px;
      padding: 5px 20px;
      border-top: 1px solid var(--line);
      background: var(--brine-wash);
      color: var(--ink);
    }
    .text {
      flex: 1;
      min-width: 0;
      display: grid;
      font-size: 12.5px;
      line-height: 1.35;
    }
    .soft,
    .mono {
      color: var(--ink);
    }
    button {
      flex: none;
    }
  `,
})
export class TourBar {
  readonly tour = inject(Tour);
}
