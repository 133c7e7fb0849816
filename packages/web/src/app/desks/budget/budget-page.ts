import { ChangeDetectionStrategy, Component, computed, effect, inject } from '@angular/core';
import { MatProgressBarModule } from '@angular/material/progress-bar';
import { Store } from '@ngrx/store';
import { NEAR_SHARE, type BudgetMeasure, type FiguresSummary, type Level, type PocketFigures } from '@stravel/core';
import { Addresses } from '../../addresses';
import { ApiClient } from '../../api/api-client';
import { Bakes } from '../../bakes/bakes';
import { MEASURES, coreBands, limitOf, measureText, type Measure } from '../../bakes/core-bands';
import { recordsFeature, selectPlayNumbers } from '../../document/records/records-store';
import { EditLog } from '../../edits/edit-log';
import { Session } from '../../session';
import { CoreSample } from '../../ui/core-sample';
import { ThemeChart, type ChartBar } from '../../ui/theme-chart';
import { Workspace } from '../../workspace';
import { FigureParts, type FigurePart } from './parts/figure-parts';
import { budgetActions, budgetFeature } from './store/budget-store';

const BUDGET_OF: Readonly<Record<Measure, BudgetMeasure>> = { memory: 'memoryBytes', triangles: 'triangles', 'draw calls': 'drawCalls', 'load time': 'loadMs', disk: 'diskBytes' };

/** The Budget desk: every level against the chosen device. */
@Component({
  selector: 'sv-budget-page',
  imports: [CoreSample, FigureParts, MatProgressBarModule, ThemeChart],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './budget-page.html',
  styleUrl: './budget-page.scss',
})
export class BudgetPage {
  private readonly store = inject(Store);
  private readonly addresses = inject(Addresses);
  private readonly api = inject(ApiClient);
  private readonly edits = inject(EditLog);
  private readonly workspace = inject(Workspace);
  readonly session = inject(Session);
  readonly bakes = inject(Bakes);
  readonly state = this.store.selectSignal(budgetFeature.selectBudgetState);
  private readonly levels = this.store.selectSignal(recordsFeature.selectLevels);
  private readonly numbers = this.store.selectSignal(selectPlayNumbers);
  readonly measures = MEASURES;
  readonly actions = budgetActions;

  readonly format = computed(() => {
    const { measure } = this.state();
    return (value: number): string => measureText(measure, value);
  });
  readonly limit = computed(() => {
    const device = this.session.device();
    return device ? limitOf(device, this.state().measure) : 0;
  });
  readonly rows = computed(() => {
    const held = this.bakes.held();
    const byLevel = this.bakes.byLevel();
    return this.levels().flatMap((level) => {
      const one = held.get(level.id);
      const bakes = byLevel[level.id];
      if (!bakes) return [];
      const isStale = bakes.sight.state !== 'fresh' || bakes.figures.state !== 'fresh';
      return [
        {
          level,
          number: this.numbers().get(level.id) ?? '·',
          held: one,
          isStale,
          cells: MEASURES.map((measure) => this.cell(level, measure, one?.values[BUDGET_OF[measure]], one?.shares[BUDGET_OF[measure]], isStale)),
        },
      ];
    });
  });
  readonly without = computed(() => this.levels().filter(({ id, purpose }) => purpose === 'play' && !this.bakes.byLevel()[id]).length);
  readonly bars = computed((): ChartBar[] =>
    this.rows().flatMap(({ level, held }) => {
      const key = BUDGET_OF[this.state().measure];
      return held ? [{ id: level.id, name: level.name, value: held.values[key], tone: toneOf(held.shares[key]) }] : [];
    }),
  );
  readonly job = computed(() => [...this.edits.jobs().values()].reverse().find(({ kind, state }) => kind === 'bake-stale' && (state === 'running' || state === 'queued')));
  readonly failedJob = computed(() => [...this.edits.jobs().values()].filter(({ kind }) => kind === 'bake-stale').at(-1));
  readonly opened = computed(() => {
    const row = this.rows().find(({ level }) => level.id === this.state().opened) ?? this.rows().find(({ held }) => (held?.over.length ?? 0) > 0) ?? this.rows().at(0);
    const device = this.session.device();
    const figures = row && this.bakes.byLevel()[row.level.id]?.figures.summary;
    if (!row?.held || !figures || !device) return undefined;
    const { measure } = this.state();
    const bands = coreBands(figures, device, measure);
    const top =
      Math.max(
        limitOf(device, measure),
        bands.reduce((sum, { value }) => sum + value, 0),
      ) * 1.08;
    return { level: row.level, held: row.held, figures, bands, top, line: (limitOf(device, measure) / top) * 210 };
  });
  readonly parts = computed((): FigurePart[] => this.figureParts());

  constructor() {
    effect(() => {
      this.workspace.footLeft.set([`${this.rows().length} levels with figures, ${this.without()} without content`, 'counts every stratum, switched off or not']);
      this.workspace.footRight.set([this.bakes.staleCount() > 0 ? `${this.bakes.staleCount()} stale` : 'all bakes fresh']);
    });
  }

  dispatch(action: ReturnType<(typeof budgetActions)[keyof typeof budgetActions]>): void {
    this.store.dispatch(action);
  }

  async cancel(id: string): Promise<void> {
    const collection = this.session.collection();
    if (collection) await this.api.cancelJob(collection.id, id);
  }

  /** Goes to where a figure comes from: the sight of the level, or its strata. */
  go(id: string): void {
    this.workspace.openLevel(id);
    const { measure } = this.state();
    const spot = this.spotOf(this.bakes.byLevel()[id]?.figures.summary, measure);
    void (spot ? this.addresses.go(['/sight', id], { at: spot.middle.join(',') }) : this.addresses.go(['/layout', id]));
  }

  /** The pocket that a figure comes from; none for what is counted of the whole level. */
  private spotOf(figures: FiguresSummary | null | undefined, measure: Measure): PocketFigures | undefined {
    if (measure === 'triangles') return figures?.worst.at(0);
    return measure === 'draw calls' ? (figures?.worstDrawCalls ?? undefined) : undefined;
  }

  private cell(
    level: Level,
    measure: Measure,
    value: number | undefined,
    share: number | undefined,
    isStale: boolean,
  ): { measure: Measure; text: string; tone: string; label: string } {
    const text = value === undefined ? '—' : measureText(measure, value);
    const tone = share === undefined ? 'unknown' : isStale ? 'stale' : toneOf(share);
    return { measure, text, tone, label: `${measure} of ${level.name}: ${value === undefined ? 'not known' : text}${isStale && value !== undefined ? ', stale' : ''}` };
  }

  private figureParts(): FigurePart[] {
    const opened = this.opened();
    if (!opened) return [];
    const { figures, held } = opened;
    const { measure } = this.state();
    const text = this.format();
    if (measure === 'triangles' || measure === 'draw calls') {
      const spot = this.spotOf(figures, measure);
      const pick = (cause: { triangles: number; drawCalls: number }): number => (measure === 'triangles' ? cause.triangles : cause.drawCalls);
      return [...(spot?.causes ?? [])]
        .sort((a, b) => pick(b) - pick(a))
        .map((cause) => ({ name: `${cause.count} × ${cause.name}${cause.what === 'blocks' ? ' blocks' : ''}`, text: text(pick(cause)), value: pick(cause) }));
    }
    if (measure === 'load time') {
      const { seekMs, readMs, unpackMs, activateMs } = held.load;
      return [
        { name: `seek, ${figures.files} files`, text: text(seekMs), value: seekMs },
        { name: 'read from disk', text: text(readMs), value: readMs },
        { name: 'unpack', text: text(unpackMs), value: unpackMs },
        { name: 'activate in frames', text: text(activateMs), value: activateMs },
      ].sort((a, b) => b.value - a.value);
    }
    return [...opened.bands].map(({ name, text: shown, value }) => ({ name, text: shown, value })).sort((a, b) => b.value - a.value);
  }
}

function toneOf(share: number): ChartBar['tone'] {
  return share > 1 ? 'over' : share > NEAR_SHARE ? 'near' : 'good';
}
