import { ChangeDetectionStrategy, Component, computed, effect, inject } from '@angular/core';
import { MatProgressBarModule } from '@angular/material/progress-bar';
import { Store } from '@ngrx/store';
import {
  counted,
  NEAR_SHARE,
  loadOf,
  type FiguresSummary,
  type HeldFigure,
  type Level,
  type PocketFigures,
} from '@stravel/core';
import { Addresses } from '../../addresses';
import { ApiClient } from '../../api/api-client';
import { Bakes } from '../../bakes/bakes';
import { BAKE_STATE_WORDS, costsOf } from '../../bakes/bakes-store';
import { BUDGET_OF, MEASURES, heldText, levelCore, limitOf, measureText, type Measure } from '../../bakes/core-bands';
import { recordsFeature, selectPlayNumbers } from '../../document/records/records-store';
import { EditLog } from '../../edits/edit-log';
import { Session } from '../../session';
import { CoreSample } from '../../ui/core-sample';
import { RowCells, RowsTable, type RowsColumn } from '../../ui/rows-table';
import { ThemeChart, type ChartBar } from '../../ui/theme-chart';
import { Workspace } from '../../workspace';
import { FigureParts, type FigurePart } from './parts/figure-parts';
import { budgetActions, budgetFeature } from './store/budget-store';
import { Help } from '../../guide/help';
import { FirstVisit } from '../../guide/first-visit';

const COLUMNS: readonly RowsColumn[] = [
  { name: 'No', width: '26px' },
  { name: 'Level', width: 'minmax(0, 1.3fr)' },
  ...MEASURES.map((measure) => ({
    name: measure === 'triangles' || measure === 'draw calls' ? `worst ${measure}` : measure,
    width: 'minmax(0, 1fr)',
    isNumber: true,
  })),
  { name: 'Bakes', width: '66px' },
];

/** The Budget desk: every level against the chosen device. */
@Component({
  selector: 'sv-budget-page',
  imports: [FirstVisit, Help, CoreSample, FigureParts, MatProgressBarModule, RowCells, RowsTable, ThemeChart],
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
  readonly columns = COLUMNS;
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
      const states = [bakes.sight.state, bakes.figures.state];
      const isStale = states.some((state) => state !== 'fresh');
      return [
        {
          level,
          number: this.numbers().get(level.id) ?? '·',
          held: one,
          isStale,
          bakesText: states.includes('unknown') ? BAKE_STATE_WORDS.unknown : isStale ? 'stale' : 'fresh',
          cells: MEASURES.map((measure) => cellOf(level, measure, one?.figures[BUDGET_OF[measure]] ?? NOTHING_HELD)),
        },
      ];
    });
  });
  readonly without = computed(
    () => this.levels().filter(({ id, purpose }) => purpose === 'play' && !this.bakes.byLevel()[id]).length,
  );
  readonly bars = computed((): ChartBar[] =>
    this.rows().flatMap(({ level, held }) => {
      const key = BUDGET_OF[this.state().measure];
      if (!held) return [];
      const { state, value = 0 } = held.figures[key];
      return [
        {
          id: level.id,
          name: state === 'known' ? level.name : `${level.name} (${state === 'bound' ? 'at most' : state})`,
          value,
          tone: toneOf(held.figures[key]),
        },
      ];
    }),
  );
  readonly job = computed(() =>
    [...this.edits.jobs().values()]
      .reverse()
      .find(({ kind, state }) => kind === 'bake-stale' && (state === 'running' || state === 'queued')),
  );
  readonly failedJob = computed(() =>
    [...this.edits.jobs().values()].filter(({ kind }) => kind === 'bake-stale').at(-1),
  );
  readonly opened = computed(() => {
    const row =
      this.rows().find(({ level }) => level.id === this.state().opened) ??
      this.rows().find(({ held }) => (held?.over.length ?? 0) > 0) ??
      this.rows().at(0);
    const device = this.session.device();
    if (!row?.held || !device) return undefined;
    const { measure } = this.state();
    const costs = costsOf(this.bakes.byLevel()[row.level.id]);
    const { bands, held: figure } = levelCore(costs, device, measure);
    const top =
      Math.max(
        limitOf(device, measure),
        bands.reduce((sum, { value }) => sum + value, 0),
      ) * 1.08;
    return {
      level: row.level,
      load: row.held.load,
      text: textOf(measure, figure),
      costs,
      figure,
      bands,
      top,
      line: (limitOf(device, measure) / top) * 210,
    };
  });
  readonly parts = computed((): FigurePart[] => this.figureParts());

  constructor() {
    effect(() => {
      this.workspace.footLeft.set([
        `${counted(this.rows().length, 'level')} with figures, ${this.without()} without content`,
        'Counts switched-off strata too',
      ]);
      this.workspace.footRight.set([
        this.bakes.staleCount() > 0 ? `${this.bakes.staleCount()} stale` : 'all bakes fresh',
      ]);
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

  private figureParts(): FigurePart[] {
    const opened = this.opened();
    if (!opened) return [];
    const { costs, load, figure } = opened;
    const { measure } = this.state();
    const text = this.format();
    if ((measure === 'triangles' || measure === 'draw calls') && figure.state !== 'bound') {
      if (figure.state === 'not known') return [];
      const spot = this.spotOf(costs.baked?.figures, measure);
      const pick = (cause: { triangles: number; drawCalls: number }): number =>
        measure === 'triangles' ? cause.triangles : cause.drawCalls;
      return [...(spot?.causes ?? [])]
        .sort((a, b) => pick(b) - pick(a))
        .map((cause) => ({
          name: `${cause.count} × ${cause.name}${cause.what === 'blocks' ? ' blocks' : ''}`,
          text: text(pick(cause)),
          value: pick(cause),
        }));
    }
    if (measure === 'load time') {
      if (!load) return [];
      const { seekMs, readMs, unpackMs, activateMs } = load;
      return [
        { name: `seek, ${counted(loadOf(costs)?.files ?? 0, 'file')}`, text: text(seekMs), value: seekMs },
        { name: 'read from disk', text: text(readMs), value: readMs },
        { name: 'unpack', text: text(unpackMs), value: unpackMs },
        { name: 'activate in frames', text: text(activateMs), value: activateMs },
      ].sort((a, b) => b.value - a.value);
    }
    return [...opened.bands]
      .map(({ name, text: shown, value }) => ({ name, text: shown, value }))
      .sort((a, b) => b.value - a.value);
  }
}

/** Of a level that no device is held against. */
const NOTHING_HELD: HeldFigure = { state: 'not known', value: undefined, share: undefined };

function toneOf({ state, share = 0 }: HeldFigure): ChartBar['tone'] {
  if (state === 'stale' || state === 'not known') return 'soft-ink';
  return share > 1 ? 'over' : share > NEAR_SHARE ? 'near' : 'good';
}

function cellOf(
  level: Level,
  measure: Measure,
  held: HeldFigure,
): { measure: Measure; text: string; tone: string; label: string } {
  const text =
    held.value === undefined
      ? '—'
      : `${held.state === 'bound' || held.state === 'not known' ? '≤ ' : ''}${measureText(measure, held.value)}`;
  const tone = held.state === 'stale' ? 'stale' : held.state === 'not known' ? 'unknown' : toneOf(held);
  return { measure, text, tone, label: `${measure} of ${level.name}: ${heldText(measure, held)}` };
}

/** What a core is counted from. */
function textOf(measure: Measure, { state }: HeldFigure): string {
  if (measure !== 'triangles' && measure !== 'draw calls') {
    const isPart = state === 'bound' || state === 'not known';
    return isPart
      ? 'The level is cut into cells: at most all of this is loaded at one time. Rehearse a walk on the Cells desk to know.'
      : 'By its parts, largest first.';
  }
  switch (state) {
    case 'known':
      return 'From its worst pocket, in 360°, largest cause first.';
    case 'stale':
      return 'From its worst pocket before the level changed last. Bake it again to know.';
    case 'bound':
      return 'All its content in full detail: no place can show more. Bake it to know the worst pocket.';
    case 'not known':
      return 'Not known: all its content together would be over. Bake it to know the worst pocket.';
  }
}
