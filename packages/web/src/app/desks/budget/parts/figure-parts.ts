import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';

/** One part of a figure. */
export interface FigurePart {
  /** Of what it leads to; '' for what is at no place. */
  readonly id: string;
  readonly count: string;
  readonly name: string;
  readonly text: string;
  readonly value: number;
}

/** What a figure is made of, largest first. */
@Component({
  selector: 'sv-figure-parts',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (part of parts(); track $index) {
      <button class="plain" [class.counted]="hasCounts()" [disabled]="part.id === ''" [title]="part.id ? 'Show ' + part.name + ' on the plan' : part.name" (click)="chosen.emit(part.id)">
        @if (hasCounts()) {
          <span class="mono soft count">{{ part.count }}</span>
        }
        <span class="name">{{ part.name }}</span>
        <span class="bar"><i [style.width.%]="(part.value / total()) * 100"></i></span>
        <span class="figure">{{ part.text }}</span>
        <span class="figure soft">{{ shareText(part.value) }}</span>
      </button>
    } @empty {
      <p class="soft">{{ isKnown() ? 'Nothing counted.' : 'Not known until the level is baked.' }}</p>
    }
  `,
  styles: `
    button {
      display: grid;
      grid-template-columns: minmax(0, 1fr) 52px 60px 42px;
      gap: 6px;
      align-items: center;
      width: 100%;
      height: 24px;
      padding: 0 12px;
    }
    .counted {
      grid-template-columns: 52px minmax(0, 1fr) 52px 60px 42px;
    }
    button:disabled {
      cursor: default;
    }
    button:hover:not(:disabled) {
      background: var(--brine-wash);
    }
    .count,
    .figure {
      text-align: right;
      white-space: nowrap;
    }
    .name {
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
    .bar {
      height: 7px;
      background: color-mix(in srgb, var(--line) 45%, transparent);
    }
    .bar i {
      display: block;
      height: 100%;
      background: var(--kiln);
    }
    p {
      padding: 4px 12px;
    }
  `,
})
export class FigureParts {
  readonly isKnown = input(true);
  readonly parts = input.required<readonly FigurePart[]>();
  /** What all of it comes to: parts that are left out count in it. */
  readonly total = input.required<number>();
  readonly chosen = output<string>();

  readonly hasCounts = computed(() => this.parts().some(({ count }) => count !== ''));

  shareText(value: number): string {
    const percent = (value / this.total()) * 100;
    return percent > 0 && percent < 1 ? '< 1 %' : `${Math.round(percent)} %`;
  }
}
