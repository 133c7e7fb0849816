import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';

/** One band of a core sample. */
export interface CoreBand {
  readonly id: string;
  readonly name: string;
  /** Role of the stratum, or 'kit'. */
  readonly role: string;
  readonly value: number;
  readonly text: string;
}

/** A level as a column of its strata, each band as thick as what it costs. */
@Component({
  selector: 'sv-core-sample',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="column" [style.height.px]="height()">
      @for (band of drawn(); track band.id) {
        <button
          class="band"
          [class]="'band role-' + band.role"
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
  /** Pixels of the whole scale. */
  readonly height = input.required<number>();
  /** Value at the top of the scale. */
  readonly top = input.required<number>();
  readonly chosen = output<string>();
  /** The band under the pointer, in words; '' when there is none any more. */
  readonly hovered = output<string>();
  readonly drawn = computed(() =>
    [...this.bands()].reverse().map((band) => ({
      ...band,
      height: Math.max(band.value > 0 ? 1 : 0, (band.value / Math.max(1e-9, this.top())) * this.height()),
    })),
  );
}
