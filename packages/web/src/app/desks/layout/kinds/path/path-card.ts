import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { pathFigures, type Knot } from '@stravel/core';
import { NumberField } from '../../../../ui/number-field';
import { LayoutDesk } from '../../editing/layout-desk';
import type { PlacedItem } from '../../editing/placed-item';
import type { ItemCard } from '../item-desk';
import { PathsDesk } from './paths-desk';
import { Help } from '../../../../guide/help';

const MAX_KNOTS_SHOWN = 40;

/** What a path measures, and its knots by number. */
@Component({
  selector: 'sv-path-card',
  imports: [Help, NumberField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <header class="card-head">
      <h2>{{ item().item.closed ? 'Closed' : 'Open' }} {{ item().item.form === 'curve' ? 'smooth' : 'straight' }} path</h2> <sv-help about="layout/paths" what="paths" />
      <span class="soft">{{ item().item.knots.length }} knots</span>
    </header>
    <dl>
      <dt>Length</dt>
      <dd class="mono">{{ figures().lengthMetres.toFixed(2) }} m</dd>
      <dt>Steepest</dt>
      <dd class="mono">{{ slope() }}</dd>
      <dt>Tightest</dt>
      <dd class="mono">{{ radius() }}</dd>
    </dl>
    <label>Name <input #name class="cell" maxlength="200" [value]="item().item.name" [disabled]="disabled()" (change)="desk.set(item(), 'name', name.value)" /></label>
    <div class="knots" tabindex="0" role="region" aria-label="Knots">
      @for (knot of shown(); track $index; let i = $index) {
        <div class="knot">
          <span class="soft mono">{{ i + 1 }}</span>
          @for (axis of axes; track axis; let k = $index) {
            <sv-number-field [label]="'Knot ' + (i + 1) + ' ' + axis" [value]="knot.position[k]" [disabled]="disabled()" (kept)="place(i, k, $event)" />
          }
          <sv-number-field
            [label]="'Width at knot ' + (i + 1)"
            [value]="knot.widthMetres"
            [least]="0"
            [most]="10000"
            [disabled]="disabled()"
            (kept)="put(i, { widthMetres: $event })"
          />
          <input
            #tags
            class="cell"
            [attr.aria-label]="'Tags of knot ' + (i + 1)"
            placeholder="tags"
            [value]="knot.tags.join(', ')"
            [disabled]="disabled()"
            (change)="put(i, { tags: tagsOf(tags.value) })"
          />
        </div>
      }
    </div>
    @if (item().item.knots.length > shown().length) {
      <p class="soft">and {{ item().item.knots.length - shown().length }} more; drag them on the plan</p>
    }
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      gap: 8px;
    }
    header {
      display: flex;
      justify-content: space-between;
    }
    dl {
      display: grid;
      grid-template-columns: auto 1fr auto 1fr auto 1fr;
      gap: 4px 8px;
      margin: 0;
      font-size: 12.5px;
    }
    dt {
      color: var(--soft-ink);
    }
    dd {
      margin: 0;
    }
    label {
      display: grid;
      grid-template-columns: 48px minmax(0, 1fr);
      align-items: center;
    }
    .knots {
      max-height: 180px;
      overflow: auto;
    }
    .knot {
      display: grid;
      grid-template-columns: 18px repeat(4, minmax(0, 1fr)) minmax(0, 1.2fr);
      gap: 3px;
      align-items: center;
      margin-bottom: 3px;
    }
  `,
  host: { class: 'card' },
})
export class PathCard implements ItemCard<'path'> {
  readonly desk = inject(LayoutDesk);
  private readonly paths = inject(PathsDesk);
  readonly item = input.required<PlacedItem<'path'>>();
  readonly disabled = input(false);
  readonly axes = ['x', 'y', 'z'];
  readonly figures = computed(() => pathFigures(this.item().item));
  readonly shown = computed(() => this.item().item.knots.slice(0, MAX_KNOTS_SHOWN));
  readonly slope = computed(() => {
    const { steepestSlope } = this.figures();
    return Number.isFinite(steepestSlope) ? `${(steepestSlope * 100).toFixed(1)} %` : 'upright';
  });
  readonly radius = computed(() => {
    const { tightestRadiusMetres } = this.figures();
    return tightestRadiusMetres === Infinity
      ? 'straight'
      : tightestRadiusMetres === 0
        ? 'a corner'
        : `${tightestRadiusMetres.toFixed(1)} m`;
  });

  put(index: number, over: Partial<Knot>): void {
    void this.paths.setKnots(
      this.item(),
      'knots of a path',
      this.item().item.knots.map((knot, i) => (i === index ? { ...knot, ...over } : knot)),
    );
  }

  place(index: number, axis: number, value: number): void {
    const [x, y, z] = this.item().item.knots[index].position.map((old, k) => (k === axis ? value : old));
    this.put(index, { position: [x, y, z] });
  }

  tagsOf(text: string): string[] {
    return text
      .split(',')
      .map((tag) => tag.trim())
      .filter(Boolean);
  }
}
