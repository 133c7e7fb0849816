import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { Tour } from './tour';

/** Takes the tour up again where it was left. */
@Component({
  selector: 'sv-tour-button',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `@if (tour.is() === 'left') {
    <button class="plain" (click)="tour.begin()">Tour of faults</button>
  }`,
})
export class TourButton {
  readonly tour = inject(Tour);
}
