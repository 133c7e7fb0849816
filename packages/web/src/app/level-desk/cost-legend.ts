import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { isOverLimit, type CostScale } from '../plate/cost-scale';

/** What the colours of costs mean: from 0 to the limit, and what is over. */
@Component({
  selector: 'sv-cost-legend',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <span>0</span><i class="under"></i>
    @if (limit(); as limit) {
      <b></b><strong class="mono">{{ limit }}</strong>
      @if (isOver()) {
        <i class="above"></i><span class="mono">{{ most() }}</span>
      } @else {
        <span>most</span><span class="mono">{{ most() }}</span>
      }
    } @else {
      <span class="mono">{{ most() }}</span>
    }
  `,
  styles: `
    :host {
      display: flex;
      align-items: center;
      gap: 5px;
    }
    i {
      width: 60px;
      height: 10px;
    }
    .under {
      background: linear-gradient(90deg, var(--cost-none), var(--cost-limit));
    }
    .above {
      background: linear-gradient(90deg, var(--cost-over), var(--cost-far));
    }
    b {
      width: 2px;
      height: 14px;
      background: var(--ink);
    }
    strong {
      color: var(--ink);
    }
  `,
  host: {
    role: 'img',
    '[attr.aria-label]': "'Colours: from 0' + (limit() ? ', limit ' + limit() : '') + ', most ' + most()",
  },
})
export class CostLegend {
  readonly scale = input.required<CostScale>();
  readonly text = input.required<(value: number) => string>();
  readonly limit = computed(() => {
    const { limit } = this.scale();
    return limit === undefined ? '' : this.text()(limit);
  });
  readonly most = computed(() => this.text()(this.scale().most));
  readonly isOver = computed(() => isOverLimit(this.scale(), this.scale().most));
}
