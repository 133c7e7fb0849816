import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { HeldFigure } from '@stravel/core';
import { CoreSample, type CoreBand } from '../../../ui/core-sample';
import { bandSizes } from '../../../ui/band-sizes';
import { spreadLabels } from './spread-labels';

const CORE_PIXELS = 176;
const LABEL_PIXELS = 16;
const MOST_LABELS = 10;

/** A core with its limit as a line across, how far it is over, and its bands named beside it. */
@Component({
  selector: 'sv-measured-core',
  imports: [CoreSample],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="core" [style.height.px]="pixels">
      <sv-core-sample [bands]="bands()" [held]="held()" [height]="pixels" [top]="top()" (chosen)="chosen.emit($event)" />
    </div>
    @for (label of labels(); track label.id) {
      <span class="label" [style.bottom.px]="label.bottom">
        <i></i><span class="name" [title]="label.name">{{ label.name }}</span><span class="figure">{{ label.text }}</span>
      </span>
    }
    @if (limit() > 0) {
      <span class="limit" [style.bottom.px]="limitPixels()"></span>
      <span class="limit-name figure" [style.bottom.px]="limitPixels() - 19">limit {{ limitText() }}</span>
    }
    @if (overText(); as text) {
      <span class="over figure" [style.bottom.px]="(limitPixels() + pixels) / 2 - 18">{{ text.amount }}<br />{{ text.share }}</span>
    }
  `,
  styles: `
    :host {
      display: block;
      position: relative;
      height: 176px;
    }
    .core {
      width: 50px;
      margin-left: 8px;
      border-bottom: 1px solid var(--soft-ink);
    }
    .label {
      position: absolute;
      left: 60px;
      right: 104px;
      display: flex;
      align-items: center;
      gap: 6px;
      height: 16px;
      margin-bottom: -8px;
      font-size: 12.5px;
    }
    .label i {
      flex: none;
      width: 8px;
      border-top: 1px solid var(--soft-ink);
    }
    .name {
      flex: 1;
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
    .limit {
      position: absolute;
      inset-inline: 0;
      border-top: 2px solid var(--ink);
    }
    .limit-name,
    .over {
      position: absolute;
      right: 0;
      text-align: right;
    }
    .over {
      font-weight: 600;
    }
  `,
})
export class MeasuredCore {
  /** Bottom first. */
  readonly bands = input.required<readonly CoreBand[]>();
  readonly held = input.required<HeldFigure>();
  /** 0 for none. */
  readonly limit = input.required<number>();
  readonly limitText = input.required<string>();
  /** By how much it is known to be over. */
  readonly overText = input<{ readonly amount: string; readonly share: string }>();
  readonly chosen = output<string>();
  readonly pixels = CORE_PIXELS;
  readonly top = computed(
    () =>
      Math.max(
        this.limit() * 1.15,
        this.bands().reduce((sum, { value }) => sum + value, 0),
      ) || 1,
  );
  readonly limitPixels = computed(() => (this.limit() / this.top()) * CORE_PIXELS);
  readonly labels = computed(() => {
    let below = 0;
    const sizes = bandSizes(this.bands(), CORE_PIXELS / this.top(), CORE_PIXELS);
    const all = this.bands().map((band, i) => {
      const middle = below + sizes[i] / 2;
      below += sizes[i];
      return { ...band, middle };
    });
    const least = [...all].sort((a, b) => b.value - a.value).at(MOST_LABELS - 1)?.value ?? 0;
    const shown = all.filter(({ value }) => value > 0 && value >= least).slice(0, MOST_LABELS);
    const places = spreadLabels(
      shown.map(({ middle }) => Math.max(middle, LABEL_PIXELS / 2)),
      LABEL_PIXELS,
      CORE_PIXELS - LABEL_PIXELS / 2,
    );
    return shown.map((band, i) => ({ ...band, bottom: places[i] }));
  });
}
