import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { LevelView } from './level-view';
import type { PlateViews } from './plate-drawing';

const VIEWS: readonly { readonly view: PlateViews; readonly text: string }[] = [
  { view: 'plan', text: 'Plan' },
  { view: 'model', text: 'Model' },
  { view: 'both', text: 'Both' },
];

/** Which views of the level are shown. */
@Component({
  selector: 'sv-plate-controls',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (one of all; track one.view) {
      <button class="plain" [attr.aria-pressed]="shown().views === one.view" (click)="view.put({ views: one.view })">{{ one.text }}</button>
    }
    <button class="plain" [attr.aria-pressed]="view.isAtEyeLevel()" title="Go through the model with keys  I" (click)="view.flipEyeLevel()">Eye level</button>
  `,
  styles: `
    :host {
      display: flex;
      border: 1px solid var(--line);
      border-radius: 3px;
      background: var(--raised);
    }
    button {
      min-height: 26px;
      padding: 2px 10px;
    }
    button + button {
      border-left: 1px solid var(--line);
    }
    button[aria-pressed='true'] {
      color: var(--brine);
      font-weight: 600;
      box-shadow: inset 0 -2px 0 var(--brine);
    }
  `,
  host: { role: 'group', 'aria-label': 'Views of the level' },
})
export class PlateControls {
  readonly view = inject(LevelView);
  readonly shown = this.view.shown;
  readonly all = VIEWS;
}
