import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';

/** One part of a figure. */
export interface FigurePart {
  readonly name: string;
  readonly text: string;
  readonly value: number;
}

/** What a figure is made of, largest first. */
@Component({
  selector: 'sv-figure-parts',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <dl>
      @for (part of parts(); track $index) {
        <dt>{{ part.name }}</dt>
        <dd class="bar"><i [style.width.%]="(part.value / most()) * 100"></i></dd>
        <dd class="figure">{{ part.text }}</dd>
      } @empty {
        <dt class="soft">Nothing counted.</dt>
      }
    </dl>
  `,
  styles: `
    dl {
      display: grid;
      grid-template-columns: minmax(0, 1.4fr) minmax(30px, 1fr) auto;
      gap: 5px 10px;
      align-items: center;
      margin: 0;
    }
    dd {
      margin: 0;
    }
    .bar {
      height: 7px;
    }
    .bar i {
      display: block;
      height: 100%;
      background: var(--kiln);
    }
  `,
})
export class FigureParts {
  readonly parts = input.required<readonly FigurePart[]>();
  readonly most = computed(() => Math.max(1e-9, ...this.parts().map(({ value }) => value)));
}
