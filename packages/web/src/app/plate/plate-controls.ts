import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { NumberField } from '../ui/number-field';
import { LevelView } from './level-view';
import type { PlateViews } from './plate-drawing';

const VIEWS: readonly PlateViews[] = ['plan', 'both', 'model'];

/** The heights that the plan shows, by storey, and which views are shown. */
@Component({
  selector: 'sv-plate-controls',
  imports: [NumberField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button class="chip" title="Storey down ," aria-label="Storey down" (click)="view.step(-1)">▾</button>
    <sv-number-field label="Lowest height shown, metres" [value]="shown().bottom" (kept)="view.put({ bottom: $event })" />
    <span class="soft">up</span>
    <sv-number-field label="Height of a storey, metres" [least]="0.1" [value]="shown().storeyMetres" (kept)="view.put({ storeyMetres: $event })" />
    <button class="chip" title="Storey up ." aria-label="Storey up" (click)="view.step(1)">▴</button>
    @for (one of all; track one) {
      <button class="plain" [class.strong]="shown().views === one" [attr.aria-pressed]="shown().views === one" (click)="view.put({ views: one })">{{ one }}</button>
    }
  `,
  styleUrl: '../ui/inline-row.scss',
  styles: `
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
  readonly view = inject(LevelView);
  readonly shown = this.view.shown;
  readonly all = VIEWS;
}
