import { ScrollingModule } from '@angular/cdk/scrolling';
import { ChangeDetectionStrategy, Component, computed, effect, inject, signal, viewChild } from '@angular/core';
import { Store } from '@ngrx/store';
import { counted, levelsUnder, type Level } from '@stravel/core';
import { Bakes } from '../../../bakes/bakes';
import { costsOf } from '../../../bakes/bakes-store';
import { LevelPlaces } from '../../../desk/level-places';
import { recordsFeature, selectPlayNumbers } from '../../../document/records/records-store';
import { SaveMenu } from '../../../ui/save-menu';
import { Session } from '../../../session';
import { Workspace } from '../../../workspace';
import { FieldContext } from '../fields/field-context';
import { SetsTabs } from '../parts/sets-tabs';
import { RegisterMaker } from '../registers/register-maker';
import { countMatrix, type MatrixCell, type MatrixColumn, type MatrixRow } from './count-matrix';
import { OrderChart, type ChartStretch } from './order-chart';
import { overviewCsvRows } from './overview-csv';
import { chartSeries, seriesOf, seriesText } from './series';
import { SETS_SERVICES } from '../services';

/** The collection seen as a whole: numbers along the order of play, and what stands where. */
@Component({
  selector: 'sv-whole-page',
  imports: [OrderChart, SaveMenu, ScrollingModule, SetsTabs],
  providers: [SETS_SERVICES],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './whole-page.html',
  styleUrl: './whole-page.scss',
})
export class WholePage {
  readonly registers = inject(RegisterMaker);
  private readonly store = inject(Store);
  private readonly levelPlaces = inject(LevelPlaces);
  private readonly workspace = inject(Workspace);
  private readonly context = inject(FieldContext);
  private readonly bakes = inject(Bakes);
  readonly session = inject(Session);
  private readonly tables = this.store.selectSignal(recordsFeature.selectTables);
  private readonly tree = this.store.selectSignal(recordsFeature.selectTree);
  private readonly allLevels = this.store.selectSignal(recordsFeature.selectLevels);
  private readonly fields = this.store.selectSignal(recordsFeature.selectFields);
  readonly numbers = this.store.selectSignal(selectPlayNumbers);

  readonly first = signal('measure triangles');
  readonly second = signal('');
  readonly by = signal<'pieces' | 'kits'>('pieces');
  readonly levels = computed(() => this.allLevels().filter(({ purpose }) => purpose === 'play'));
  readonly names = computed(() => this.levels().map(({ id, name }) => `${this.numbers().get(id) ?? ''} ${name}`));
  /** Name of the top set over each level. */
  private readonly tops = computed(
    () => new Map(this.tree().flatMap((node) => levelsUnder(node).map(({ id }) => [id, node.set.name] as const))),
  );
  readonly stretches = computed((): ChartStretch[] => {
    const stretches: { name: string; from: number; to: number }[] = [];
    this.levels().forEach(({ id }, i) => {
      const name = this.tops().get(id) ?? '';
      const last = stretches.at(-1);
      if (last?.name === name) last.to = i + 1;
      else stretches.push({ name, from: i, to: i + 1 });
    });
    return stretches;
  });
  readonly all = computed(() =>
    seriesOf(
      this.fields(),
      { figureOf: this.context.figureOf(), stateOf: this.context.figureStateOf() },
      (level) => costsOf(this.bakes.byLevel()[level]),
      this.session.device(),
    ),
  );
  readonly charted = computed(() =>
    [this.first(), this.second()].flatMap((id) => {
      const series = this.all().find((one) => one.id === id);
      return series ? [chartSeries(series, this.levels())] : [];
    }),
  );
  readonly standOut = computed(() =>
    this.charted().flatMap(({ series, values, states, outliers }) =>
      outliers.map((at) => ({
        at,
        level: this.levels()[at],
        text: `${series.name} ${seriesText(series, values[at], states[at])}`,
      })),
    ),
  );
  /** Whether any point is not simply so. */
  readonly hasHollow = computed(() =>
    this.charted().some(({ values, states }) =>
      values.some((value, i) => !Number.isNaN(value) && states[i] !== 'known'),
    ),
  );
  readonly isEmpty = computed(() => this.charted().every(({ values }) => values.every(Number.isNaN)));
  readonly matrix = computed(() =>
    countMatrix(
      this.levels(),
      this.context.figures(),
      this.tables().piece,
      (kit) => this.tables().kit[kit]?.name ?? kit,
      this.by(),
      ({ id }) => this.tops().get(id) ?? '',
    ),
  );
  readonly chart = viewChild(OrderChart);
  readonly csvRows = (): string[][] =>
    overviewCsvRows(this.matrix(), this.charted(), this.levels(), (level) => String(this.numbers().get(level) ?? ''));
  readonly template = computed(
    () => `34px minmax(170px, 1.4fr) repeat(${this.matrix().columns.length}, minmax(64px, 1fr))`,
  );
  readonly leastWidth = computed(() => 230 + this.matrix().columns.length * 66);
  readonly rowId = (_i: number, row: { readonly level: Level }): string => row.level.id;

  constructor() {
    effect(() => {
      const { rows } = this.matrix();
      const stands = (word: string): number =>
        rows.reduce((sum, { cells }) => sum + (cells?.filter((cell) => cell.stands === word).length ?? 0), 0);
      this.workspace.footLeft.set([
        counted(rows.length, 'play level'),
        `${stands('crowded')} crowded, ${stands('missing')} missing`,
      ]);
      const uncounted = rows.filter(({ cells }) => !cells).length;
      this.workspace.footRight.set(uncounted > 0 ? [`${uncounted} without content or not baked yet`] : []);
    });
  }

  go(level: Level | undefined): void {
    if (level) void this.levelPlaces.open(level.id, 'layout');
  }

  /** How strongly a cell is shaded, percent. */
  shade({ share }: MatrixCell): number {
    return Math.round(share * 70);
  }

  text({ count, stands }: MatrixCell, column: MatrixColumn, { level, isStale }: MatrixRow): string {
    return `${level.name}: ${count} ${column.name}${stands ? `, ${stands}` : ''}${isStale ? ', as its last bake counted' : ''}`;
  }
}
