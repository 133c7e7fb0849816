import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { NumberField } from '../ui/number-field';
import type { PlateViews } from './plate-drawing';

const VIEWS: readonly PlateViews[] = ['plan', 'both', 'model'];

/** The heights that the plan shows, by storey, and which views are shown. */
@Component({
  selector: 'sv-plate-controls',
  imports: [NumberField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button class="chip" title="Storey down [" aria-label="Storey down" (click)="stepped.emit(-1)">▾</button>
    <sv-number-field label="Lowest height shown, metres" [value]="bottom()" (kept)="heightsSet.emit({ bottom: $event, storeyMetres: storeyMetres() })" />
    <span class="soft">up</span>
    <sv-number-field label="Height of a storey, metres" [least]="0.1" [value]="storeyMetres()" (kept)="heightsSet.emit({ bottom: bottom(), storeyMetres: $event })" />
    <button class="chip" title="Storey up ]" aria-label="Storey up" (click)="stepped.emit(1)">▴</button>
    @for (one of all; track one) {
      <button class="plain" [class.strong]="views() === one" [attr.aria-pressed]="views() === one" (click)="viewsChosen.emit(one)">{{ one }}</button>
    }
  `,
  styles: `
    :host {
      display: flex;
      align-items: center;
      gap: 6px;
    }
    sv-number-field {
      width: 54px;
    }
    button[aria-pressed='true'] {
      color: var(--brine);
      font-weight: 600;
    }
  `,
})
export class PlateControls {
  readonly bottom = input.required<number>();
  readonly storeyMetres = input.required<number>();
  readonly views = input.required<PlateViews>();
  readonly stepped = output<1 | -1>();
  readonly heightsSet = output<{ bottom: number; storeyMetres: number }>();
  readonly viewsChosen = output<PlateViews>();
  readonly all = VIEWS;
}
