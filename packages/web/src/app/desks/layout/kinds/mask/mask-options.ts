import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { NumberField } from '../../../../ui/number-field';
import { LayoutDesk } from '../../editing/layout-desk';
import { MasksDesk } from './masks-desk';

/** What the brush of masks leaves, and the measures of new masks. */
@Component({
  selector: 'sv-mask-options',
  imports: [NumberField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <select class="cell" #ground aria-label="What the brush paints" (change)="desk.put({ opensGround: ground.value === 'open' })">
      <option value="open" [selected]="masks.opens()">open</option>
      <option value="solid" [selected]="!masks.opens()">solid</option>
    </select>
    <span class="inline"
      >brush <sv-number-field label="Width of the brush, metres" [least]="0.01" [most]="1000" [value]="masks.brushMetres()" (kept)="desk.put({ brushMetres: $event })"
    /></span>
    @if (!masks.selected()) {
      <span class="inline"
        >px per m <sv-number-field label="Pixels per metre of new masks" [least]="0.001" [most]="1000" [value]="masks.pixelsPerMetre()" (kept)="desk.put({ pixelsPerMetre: $event })"
      /></span>
      <button class="chip" (click)="masks.openPicture()">From a picture…</button>
    }
  `,
  styleUrl: '../../plan/tool-options.scss',
})
export class MaskOptions {
  readonly desk = inject(LayoutDesk);
  readonly masks = inject(MasksDesk);
}
