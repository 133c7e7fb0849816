import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { NEAR_SHARE, type FigureState } from '@stravel/core';

/** The end of a bar that has a limit, as a multiple of it: what is over shows by how much. */
const MOST_OVER = 1.5;

/** A figure as a bar from 0, with its limit as a tick: full when known, hatched as a bound, outlined when not known. */
@Component({
  selector: 'sv-limit-bar',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <i [class]="'fill ' + state().replace(' ', '-')" [class.over]="isOver()" [class.near]="isNear()" [style.width.%]="(shown() / end()) * 100"></i>
    @if (hasLimit()) {
      <b [style.left.%]="100 / end()"></b>
    }
  `,
  styles: `
    :host {
      display: block;
      position: relative;
      height: 8px;
      background: color-mix(in srgb, var(--line) 45%, transparent);
    }
    .fill {
      position: absolute;
      inset: 0 auto 0 0;
      background: var(--good);
    }
    .fill.near {
      background: var(--near);
    }
    .fill.over {
      background: var(--over);
    }
    .fill.bound {
      background: repeating-linear-gradient(135deg, var(--soft-ink) 0 1px, transparent 1px 4px);
      outline: 1px solid var(--soft-ink);
      outline-offset: -1px;
    }
    .fill.stale {
      background: repeating-linear-gradient(var(--soft-ink) 0 2px, transparent 2px 4px);
    }
    .fill.not-known {
      background: none;
      outline: 1px dotted var(--soft-ink);
      outline-offset: -1px;
    }
    b {
      position: absolute;
      inset-block: -2px;
      width: 2px;
      margin-left: -1px;
      background: var(--ink);
    }
  `,
  host: { 'aria-hidden': 'true' },
})
export class LimitBar {
  /** Of its limit: 1 at the limit. */
  readonly share = input.required<number>();
  readonly state = input<FigureState>('known');
  readonly hasLimit = input(true);
  readonly end = computed(() => (this.hasLimit() && this.share() > 1 ? MOST_OVER : this.hasLimit() ? 1.1 : 1));
  readonly shown = computed(() => Math.min(this.end(), Math.max(0, this.share())));
  readonly isOver = computed(() => this.hasLimit() && this.share() > 1);
  readonly isNear = computed(() => this.hasLimit() && !this.isOver() && this.share() >= NEAR_SHARE);
}
