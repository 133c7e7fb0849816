import { Chevron } from '../ui/chevron';
import { CdkTrapFocus } from '@angular/cdk/a11y';
import { CdkConnectedOverlay, CdkOverlayOrigin } from '@angular/cdk/overlay';
import { ChangeDetectionStrategy, Component, inject, input } from '@angular/core';
import type { PlateFlag } from '../desk/desk-frame';
import { NumberField } from '../ui/number-field';
import { LevelView } from './level-view';
import type { ModelCut } from './plate-drawing';
import type { PlateView } from './plate-view';
import { Viewpoints } from './viewpoints/viewpoints';

const FLAGS = [
  { flag: 'hasLabels', text: 'Names' },
  { flag: 'hasGhosts', text: 'What lies at other heights, faintly' },
  { flag: 'hasGrid', text: 'Grid' },
  { flag: 'hasEdges', text: 'Edges of blocks in the model' },
  { flag: 'hasShade', text: 'Shade in corners of the model, when it rests' },
] as const;

const CUTS: readonly { readonly text: string; readonly of: Pick<ModelCut, 'axis' | 'keeps'> | undefined }[] = [
  { text: 'nowhere', of: undefined },
  { text: 'at x, keep less', of: { axis: 'x', keeps: 'less' } },
  { text: 'at x, keep more', of: { axis: 'x', keeps: 'more' } },
  { text: 'at z, keep less', of: { axis: 'z', keeps: 'less' } },
  { text: 'at z, keep more', of: { axis: 'z', keeps: 'more' } },
];

/** What the plate shows: heights, names, ghosts, grid, and what the desk adds. */
@Component({
  selector: 'sv-shown-menu',
  imports: [Chevron, CdkConnectedOverlay, CdkOverlayOrigin, CdkTrapFocus, NumberField, Viewpoints],
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
        <div class="heights">
          <label for="model-cut">Cut the model</label>
          <select #cut id="model-cut" class="cell" (change)="cutAlong(cut.value)">
            @for (one of cuts; track one.text) {
              <option [value]="$index" [selected]="isCut(one)">{{ one.text }}</option>
            }
          </select>
          @if (view.shown().cut; as now) {
            <sv-number-field [label]="'Where the model is cut, metres along ' + now.axis" [value]="now.at" (kept)="view.put({ cut: { axis: now.axis, keeps: now.keeps, at: $event } })" />
            <span>m</span>
          }
        </div>
        <ng-content />
        <sv-viewpoints [plate]="plate()" />
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
    .heights > :is(span, label) {
      white-space: nowrap;
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
  readonly plate = input<PlateView>();
  readonly cuts = CUTS;

  isCut({ of }: (typeof CUTS)[number]): boolean {
    const { cut } = this.view.shown();
    return cut?.axis === of?.axis && cut?.keeps === of?.keeps;
  }

  /** Cuts it through what the plan looks at. */
  cutAlong(index: string): void {
    const { of } = CUTS[Number(index)];
    const [x, z] = this.plate()?.planView().middle ?? [0, 0];
    const now = this.view.shown().cut;
    const at = now && now.axis === of?.axis ? now.at : Math.round((of?.axis === 'x' ? x : z) * 10) / 10;
    this.view.put({ cut: of && { ...of, at } });
  }

  flip(flag: PlateFlag): void {
    this.frame.put({ [flag]: !this.frame.shows(flag) });
  }
}
