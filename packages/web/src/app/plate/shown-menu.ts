import { Chevron } from '../ui/chevron';
import { CdkTrapFocus } from '@angular/cdk/a11y';
import { CdkConnectedOverlay, CdkOverlayOrigin } from '@angular/cdk/overlay';
import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import type { PlateFlag } from '../desk/desk-frame';
import { NumberField } from '../ui/number-field';
import { LevelView } from './level-view';

const FLAGS = [
  { flag: 'hasLabels', text: 'Names' },
  { flag: 'hasGhosts', text: 'What lies at other heights, faintly' },
  { flag: 'hasGrid', text: 'Grid' },
  { flag: 'hasEdges', text: 'Edges of blocks in the model' },
] as const;

/** What the plate shows: heights, names, ghosts, grid, and what the desk adds. */
@Component({
  selector: 'sv-shown-menu',
  imports: [Chevron, CdkConnectedOverlay, CdkOverlayOrigin, CdkTrapFocus, NumberField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button class="chip" cdkOverlayOrigin #origin="cdkOverlayOrigin" aria-haspopup="dialog" [attr.aria-expanded]="isOpen()" (click)="isOpen.set(!isOpen())">
      Shown <sv-chevron />
    </button>
    <ng-template
      cdkConnectedOverlay
      [cdkConnectedOverlayOrigin]="origin"
      [cdkConnectedOverlayOpen]="isOpen()"
      [cdkConnectedOverlayOffsetY]="4"
      cdkConnectedOverlayHasBackdrop
      cdkConnectedOverlayBackdropClass="cdk-overlay-transparent-backdrop"
      (backdropClick)="isOpen.set(false)"
      (detach)="isOpen.set(false)"
    >
      <div class="panel" cdkTrapFocus cdkTrapFocusAutoCapture role="dialog" aria-label="What the plate shows" (keydown.escape)="isOpen.set(false)">
        <div class="heights">
          <span>Heights from</span>
          <sv-number-field label="Lowest height shown, metres" [value]="view.shown().bottom" (kept)="view.put({ bottom: $event })" />
          <span>m up</span>
          <sv-number-field label="Height of a storey, metres" [least]="0.1" [value]="view.shown().storeyMetres" (kept)="view.put({ storeyMetres: $event })" />
          <span>m</span>
        </div>
        @for (one of flags; track one.flag) {
          <label><input type="checkbox" [checked]="frame.shows(one.flag)" (change)="flip(one.flag)" /> {{ one.text }}</label>
        }
        <ng-content />
      </div>
    </ng-template>
  `,
  styles: `
    .panel {
      display: grid;
      gap: 8px;
      width: 320px;
      padding: 12px;
      border: 1px solid var(--line);
      border-radius: 4px;
      background: var(--raised);
      color: var(--ink);
    }
    .heights {
      display: flex;
      align-items: center;
      gap: 6px;
      color: var(--soft-ink);
    }
    sv-number-field {
      width: 64px;
    }
  `,
})
export class ShownMenu {
  readonly view = inject(LevelView);
  readonly frame = this.view.frame;
  readonly flags = FLAGS;
  readonly isOpen = this.frame.isShownOpen;

  flip(flag: PlateFlag): void {
    this.frame.put({ [flag]: !this.frame.shows(flag) });
  }
}
