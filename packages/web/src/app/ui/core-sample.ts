import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { HeldFigure } from '@stravel/core';
import { bandSizes } from './band-sizes';

/** One band of a core sample. */
export interface CoreBand {
  readonly id: string;
  readonly name: string;
  /** Role of the stratum, or 'kit'. */
  readonly role: string;
  readonly value: number;
  readonly text: string;
}

/** A level as a column of its strata, each band as thick as what it costs: hatched where that is a bound, an outline where it is not known. */
@Component({
  selector: 'sv-core-sample',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="column" [class.bound]="held().state === 'bound'" [class.stale]="held().state === 'stale'" [style.height.px]="height()">
      @if (bands().length === 0) {
        <span class="unknown" [style.height.px]="unknownPixels()" title="not known"></span>
      }
      @for (band of drawn(); track band.id) {
        <button
          class="band"
          [class]="'band role-' + band.role"
          [class.thin]="band.height <= 2"
          [style.height.px]="band.height"
          [title]="band.name + ' · ' + band.text"
          [attr.aria-label]="band.name + ', ' + band.text"
          tabindex="-1"
          (click)="chosen.emit(band.id)"
          (mouseenter)="hovered.emit(band.name + ', ' + band.text)"
          (mouseleave)="hovered.emit('')"
        ></button>
      }
    </div>
  `,
  styleUrl: './core-sample.scss',
})
export class CoreSample {
  /** Bottom first. */
  readonly bands = input.required<readonly CoreBand[]>();
  /** What they add up to, and how far that can be trusted. */
  readonly held = input.required<Pick<HeldFigure, 'state' | 'value'>>();
  /** Pixels of the whole scale. */
  readonly height = input.required<number>();
  /** Value at the top of the scale. */
  readonly top = input.required<number>();
  readonly chosen = output<string>();
  /** The band under the pointer, in words; '' when there is none any more. */
  readonly hovered = output<string>();
  private readonly scale = computed(() => this.height() / Math.max(1e-9, this.top()));
  readonly drawn = computed(() => {
    const heights = bandSizes(this.bands(), this.scale(), this.height());
    return this.bands()
      .map((band, i) => ({ ...band, height: heights[i] }))
      .reverse();
  });
  /** As high as what it is at most, as far as there is room; all of it where nothing is known. */
  readonly unknownPixels = computed(() => {
    const { value } = this.held();
    return value === undefined ? this.height() : Math.min(this.height(), Math.max(3, value * this.scale()));
  });
}
