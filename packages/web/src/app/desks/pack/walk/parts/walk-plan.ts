import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { PlanPoint } from '@stravel/core';
import type { RunCell } from '@stravel/core/pack-walk';

/** What a cell is doing at a moment. */
export const CELL_STATES = ['there', 'reading', 'asked', 'late', 'unloaded', 'none'] as const;
export type CellState = (typeof CELL_STATES)[number];
export const CELL_WORDS: Readonly<Record<CellState, string>> = {
  there: 'in memory',
  reading: 'reading',
  asked: 'requested',
  late: 'late',
  unloaded: 'unloaded',
  none: 'not requested',
};
/** How far the view reaches on the plan, as a share of the plan's width. */
const CONE_SHARE = 0.16;

/** The cells of a level on the plan by what they are doing, and where one is. */
@Component({
  selector: 'sv-walk-plan',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <header><h2>Cells</h2><span class="soft mono">{{ cells().length === 0 ? 'not cut' : counts().there + ' of ' + cells().length + ' in memory' }}</span></header>
    <svg [attr.viewBox]="box()" role="img" [attr.aria-label]="text()" preserveAspectRatio="xMidYMid meet">
      <defs>
        <pattern id="sv-reading" [attr.width]="unit() * 1.6" [attr.height]="unit() * 1.6" patternUnits="userSpaceOnUse">
          <path [attr.d]="'M0 ' + unit() * 0.4 + 'H' + unit() * 1.6" class="stripe" [attr.stroke-width]="unit() * 0.5" />
        </pattern>
      </defs>
      <path class="none" [attr.d]="squares().none" />
      <path class="there" [attr.d]="squares().there" />
      <path class="reading" [attr.d]="squares().reading" />
      <path class="asked" [attr.d]="squares().asked" />
      <path class="unloaded" [attr.d]="squares().unloaded" />
      <path class="late" [attr.d]="squares().late" />
      <path class="grid" [attr.d]="outlines()" />
      <polyline class="way" [attr.points]="wayText()" />
      <path class="cone" [attr.d]="cone()" />
      <circle class="eye" [attr.cx]="at()[0]" [attr.cy]="at()[1]" [attr.r]="unit() * 1.1" />
    </svg>
    @if (cells().length > 0) {
      <ul class="legend">
        @for (state of states; track state) {
          <li><i [class]="state"></i>{{ words[state] }}</li>
        }
      </ul>
    }
  `,
  styles: `
    :host { display: grid; grid-template-rows: auto minmax(0, 1fr) auto; gap: 4px; padding: 8px 10px; min-height: 0; }
    header { display: flex; align-items: baseline; justify-content: space-between; gap: 8px; font-size: 12px; }
    h2 { font-size: 13.5px; }
    svg { width: 100%; height: 100%; min-height: 0; }
    path, polyline, circle { vector-effect: non-scaling-stroke; }
    .none { fill: var(--plate); }
    .there { fill: color-mix(in srgb, var(--brine) 28%, transparent); }
    .reading { fill: url(#sv-reading); }
    .stripe { stroke: var(--brine); }
    .asked { fill: none; stroke: var(--brine); stroke-width: 1.5; }
    .unloaded { fill: color-mix(in srgb, var(--near) 18%, transparent); }
    .late { fill: color-mix(in srgb, var(--over) 14%, transparent); stroke: var(--over); stroke-width: 2; stroke-dasharray: 4 3; }
    .grid { fill: none; stroke: var(--line); stroke-width: 1; }
    .way { fill: none; stroke: var(--near); stroke-width: 2; }
    .cone { fill: color-mix(in srgb, var(--kiln) 30%, transparent); }
    .eye { fill: var(--raised); stroke: var(--kiln); stroke-width: 2.5; }
    .legend { display: grid; grid-template-columns: repeat(3, auto); gap: 2px 10px; margin: 0; padding: 0; list-style: none; font-size: 12px; }
    .legend li { display: flex; align-items: center; gap: 6px; white-space: nowrap; }
    .legend i { width: 11px; height: 11px; border: 1px solid var(--line); }
    .legend i.there { background: color-mix(in srgb, var(--brine) 28%, transparent); border-color: var(--brine); }
    .legend i.reading { background: repeating-linear-gradient(var(--brine) 0 2px, transparent 2px 4px); }
    .legend i.asked { border: 1.5px solid var(--brine); }
    .legend i.late { border: 2px dashed var(--over); }
    .legend i.unloaded { background: color-mix(in srgb, var(--near) 18%, transparent); border-color: var(--near); }
  `,
})
export class WalkPlan {
  readonly cells = input.required<readonly RunCell[]>();
  /** By the number of the cell. */
  readonly stateOf = input.required<readonly CellState[]>();
  readonly way = input.required<readonly PlanPoint[]>();
  /** Of all that is in the level: shown where it is not cut. */
  readonly bounds = input.required<readonly [PlanPoint, PlanPoint]>();
  readonly at = input.required<readonly [number, number]>();
  readonly heading = input.required<readonly [number, number]>();
  readonly states = CELL_STATES;
  readonly words = CELL_WORDS;

  private readonly frame = computed(() => {
    const cells = this.cells().flatMap(({ min, max }) => [min, max]);
    const points = [...(cells.length > 0 ? cells : this.bounds()), ...this.way()];
    const [min, max] = [
      [Infinity, Infinity],
      [-Infinity, -Infinity],
    ];
    for (const point of points) {
      for (let k = 0; k < 2; k++) {
        min[k] = Math.min(min[k], point[k]);
        max[k] = Math.max(max[k], point[k]);
      }
    }
    const size = Math.max(max[0] - min[0], max[1] - min[1], 8);
    const margin = size * 0.04;
    return { min, size, width: max[0] - min[0] + margin * 2, height: max[1] - min[1] + margin * 2, margin };
  });
  readonly box = computed(() => {
    const { min, width, height, margin } = this.frame();
    return `${min[0] - margin} ${min[1] - margin} ${width} ${height}`;
  });
  /** About four pixels, metres. */
  readonly unit = computed(() => this.frame().size / 70);
  readonly counts = computed(() => {
    const counts = Object.fromEntries(CELL_STATES.map((state) => [state, 0])) as Record<CellState, number>;
    for (const state of this.stateOf()) counts[state]++;
    return counts;
  });
  readonly squares = computed(() => {
    const paths = Object.fromEntries(CELL_STATES.map((state) => [state, ''])) as Record<CellState, string>;
    this.cells().forEach((cell, i) => (paths[this.stateOf()[i] ?? 'none'] += squareOf(cell)));
    return paths;
  });
  readonly outlines = computed(() =>
    (this.cells().length > 0 ? this.cells() : [{ min: this.bounds()[0], max: this.bounds()[1] }])
      .map(squareOf)
      .join(''),
  );
  readonly wayText = computed(() =>
    this.way()
      .map(([x, z]) => `${x},${z}`)
      .join(' '),
  );
  readonly cone = computed(() => {
    const [[x, z], [dx, dz]] = [this.at(), this.heading()];
    const reach = this.frame().size * CONE_SHARE;
    const side = 0.5;
    const corner = (turn: number): string => `${x + (dx - dz * turn) * reach} ${z + (dz + dx * turn) * reach}`;
    return `M${x} ${z}L${corner(side)}L${corner(-side)}Z`;
  });
  readonly text = computed(() => {
    const counts = this.counts();
    const told = CELL_STATES.filter((state) => counts[state] > 0).map(
      (state) => `${counts[state]} ${CELL_WORDS[state]}`,
    );
    return told.length > 0 ? `Plan of cells: ${told.join(', ')}` : 'Plan of the way; the level is not cut into cells';
  });
}

function squareOf({ min, max }: Pick<RunCell, 'min' | 'max'>): string {
  return `M${min[0]} ${min[1]}H${max[0]}V${max[1]}H${min[0]}Z`;
}
