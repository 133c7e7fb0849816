import { ChangeDetectionStrategy, Component, computed, effect, inject, signal, viewChild } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import { MatProgressBarModule } from '@angular/material/progress-bar';
import { Store } from '@ngrx/store';
import { byKey, counted, holdAgainst, overCode, type HeldFigure } from '@stravel/core';
import { Addresses } from '../../addresses';
import { ApiClient } from '../../api/api-client';
import { Bakes } from '../../bakes/bakes';
import {
  BUDGET_OF,
  MEASURES,
  columnUnits,
  levelCore,
  limitOf,
  measureText,
  type Measure,
} from '../../bakes/core-bands';
import { DeskFrame, FRAME_DESK } from '../../desk/desk-frame';
import { recordsFeature, selectPlayNumbers } from '../../document/records/records-store';
import { EditLog } from '../../edits/edit-log';
import { LevelPlaces } from '../../desk/level-places';
import { Acceptances } from '../../findings/acceptances';
import { FindingsHome } from '../../findings/findings-home';
import { FirstVisit } from '../../guide/first-visit';
import { Help } from '../../guide/help';
import { Session } from '../../session';
import { Chevron } from '../../ui/chevron';
import { LimitBar } from '../../ui/limit-bar';
import { ContextMenus, type MenuEntry } from '../../ui/context-menus';
import { SaveMenu } from '../../ui/save-menu';
import { StateChip } from '../../ui/state-chip';
import { StateMark } from '../../ui/state-mark';
import { Workspace } from '../../workspace';
import { budgetCsvRows } from './budget-csv';
import { BUDGET_CHIPS, budgetRows, type BudgetChip, type LevelRow, type SetRow } from './budget-rows';
import { chartGroups, type ChartSlot } from './chart-bars';
import { partsOf, spotOf } from './level-parts';
import { BudgetTable } from './parts/budget-table';
import { FigureParts } from './parts/figure-parts';
import { LevelChart } from './parts/level-chart';
import { MeasuredCore } from './parts/measured-core';
import { budgetActions, budgetFeature } from './store/budget-store';

/** Colours of the compared devices, in their order. */
const DEVICE_TONES = ['kiln', 'role-structure', 'role-section'] as const;
const CHIP_NAMES: Readonly<Record<BudgetChip, string>> = {
  over: 'Over',
  near: 'Near',
  'not known': 'Not known',
  stale: 'Stale',
};

/** The Budget desk: every level against one to three devices. */
@Component({
  selector: 'sv-budget-page',
  imports: [
    BudgetTable,
    Chevron,
    FigureParts,
    FirstVisit,
    Help,
    LevelChart,
    SaveMenu,
    LimitBar,
    MatMenuModule,
    MatProgressBarModule,
    MeasuredCore,
    StateChip,
    StateMark,
  ],
  providers: [{ provide: FRAME_DESK, useValue: 'budget' }, DeskFrame],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './budget-page.html',
  styleUrl: './budget-page.scss',
})
export class BudgetPage {
  private readonly store = inject(Store);
  private readonly addresses = inject(Addresses);
  private readonly api = inject(ApiClient);
  private readonly edits = inject(EditLog);
  private readonly findings = inject(FindingsHome);
  private readonly workspace = inject(Workspace);
  readonly acceptances = inject(Acceptances);
  readonly menus = inject(ContextMenus);
  private readonly levelPlaces = inject(LevelPlaces);
  readonly session = inject(Session);
  readonly bakes = inject(Bakes);
  readonly frame = inject(DeskFrame);
  readonly state = this.store.selectSignal(budgetFeature.selectBudgetState);
  private readonly tree = this.store.selectSignal(recordsFeature.selectTree);
  private readonly allDevices = this.store.selectSignal(recordsFeature.selectDevices);
  private readonly numbers = this.store.selectSignal(selectPlayNumbers);
  readonly measures = MEASURES;
  readonly chips = BUDGET_CHIPS;
  readonly chipNames = CHIP_NAMES;
  readonly actions = budgetActions;
  /** Of three devices, the one whose columns are open. */
  readonly openDevice = signal(0);
  readonly isChartOpen = computed(() => this.frame.isOpen('Chart'));

  /** The device of the top bar first. */
  readonly devices = computed(() => {
    const first = this.session.device();
    const others = this.state().others.flatMap((id) => this.allDevices().find((device) => device.id === id) ?? []);
    return first ? [first, ...others.filter(({ id }) => id !== first.id)].slice(0, DEVICE_TONES.length) : [];
  });
  readonly free = computed(() => this.allDevices().filter((device) => !this.devices().includes(device)));
  readonly units = computed(() => columnUnits(this.devices()));
  readonly sets = computed(() =>
    budgetRows({ tree: this.tree(), bakes: this.bakes.byLevel(), numbers: this.numbers(), devices: this.devices() }),
  );
  private readonly rows = computed(() => this.sets().flatMap(({ levels }) => levels));
  readonly counts = computed(() =>
    byKey(BUDGET_CHIPS, (chip) => this.rows().filter((row) => row.chips.has(chip)).length),
  );
  /** The sets with the levels that the chips and the filter leave. */
  readonly shown = computed((): SetRow[] => {
    const { chips, filter } = this.state();
    const text = filter.trim().toLowerCase();
    if (chips.length === 0 && text === '') return this.sets();
    return this.sets().flatMap((set) => {
      const levels = set.levels.filter(
        (row) =>
          (chips.length === 0 || chips.some((chip) => row.chips.has(chip))) &&
          row.level.name.toLowerCase().includes(text),
      );
      return levels.length > 0 ? [{ ...set, levels }] : [];
    });
  });
  readonly drawn = viewChild(LevelChart);
  readonly csvRows = (): string[][] => budgetCsvRows(this.shown(), this.devices(), this.units());
  readonly chart = computed(() => chartGroups(this.shown(), this.state().measure, this.state().chartSet));
  readonly chartSet = computed(() => this.shown().some(({ id }) => id === this.state().chartSet));
  readonly chartDevices = computed(() => this.devices().map(({ name }, i) => ({ name, tone: DEVICE_TONES[i] })));
  readonly chartLabel = computed(
    () =>
      `${this.state().measure} of every level against ${this.devices()
        .map(({ name }) => name)
        .join(', ')}`,
  );
  /** Whether any level has content that can be baked. */
  readonly hasBakes = computed(() => Object.keys(this.bakes.byLevel()).length > 0);
  readonly job = computed(() =>
    [...this.edits.jobs().values()]
      .reverse()
      .find(({ kind, state }) => kind === 'bake-stale' && (state === 'running' || state === 'queued')),
  );
  readonly failedJob = computed(() =>
    [...this.edits.jobs().values()].filter(({ kind }) => kind === 'bake-stale').at(-1),
  );
  readonly opened = computed(() => {
    const { opened, openedDevice, measure } = this.state();
    const row =
      this.rows().find(({ id }) => id === opened) ??
      this.rows().find(({ chips }) => chips.has('over')) ??
      this.rows().at(0);
    const device = this.devices().find(({ id }) => id === openedDevice) ?? this.devices().at(0);
    if (!row || !device) return undefined;
    const held = holdAgainst(row.costs, device);
    const core = levelCore(row.costs, device, measure);
    const limit = limitOf(device, measure);
    const sum = core.bands.reduce((total, { value }) => total + value, 0);
    return {
      row,
      device,
      core,
      limit,
      limitText: measureText(measure, limit),
      over: overText(measure, core.held, limit),
      text: causesText(measure, core.held),
      notKnown: notKnownText(measure, core.held),
      parts: partsOf(measure, row.costs, held.load, core),
      total: Math.max(1e-9, core.held.value ?? sum),
    };
  });
  /** What is known to be over and not accepted yet. */
  readonly finding = computed(() => {
    const opened = this.opened();
    if (!opened || opened.device !== this.session.device()) return undefined;
    const code = overCode(BUDGET_OF[this.state().measure]);
    return this.findings.open().find((one) => one.code === code && one.place.level === opened.row.id);
  });

  constructor() {
    effect(() => {
      const rows = this.rows();
      const empty = rows.filter(({ costs }) => !costs.count && !costs.baked).length;
      this.workspace.footLeft.set([
        `${counted(rows.length - empty, 'level')} with figures, ${empty} without content`,
        'Counts switched-off strata too',
      ]);
      this.workspace.footRight.set([
        this.bakes.staleCount() > 0 ? `${this.bakes.staleCount()} stale` : this.hasBakes() ? 'all bakes fresh' : '',
      ]);
    });
  }

  dispatch(action: ReturnType<(typeof budgetActions)[keyof typeof budgetActions]>): void {
    this.store.dispatch(action);
  }

  add(id: string): void {
    this.dispatch(budgetActions.devicesCompared({ others: [...this.others(), id] }));
  }

  drop(id: string): void {
    this.openDevice.set(0);
    this.dispatch(budgetActions.devicesCompared({ others: this.others().filter((other) => other !== id) }));
  }

  clear(): void {
    for (const chip of this.state().chips) this.dispatch(budgetActions.chipToggled({ chip }));
    this.dispatch(budgetActions.filterTyped({ text: '' }));
  }

  pick({ id, isSet }: ChartSlot): void {
    this.dispatch(isSet ? budgetActions.chartSetOpened({ id }) : budgetActions.levelOpened({ id }));
  }

  async cancel(id: string): Promise<void> {
    const collection = this.session.collection();
    if (collection) await this.api.cancelJob(collection.id, id);
  }

  goToDevices(): void {
    void this.addresses.go(['/devices']);
  }

  /** Goes to where a figure comes from: the sight of the level, or its strata. */
  go(): void {
    const opened = this.opened();
    if (!opened) return;
    this.workspace.openLevel(opened.row.id);
    const spot = spotOf(opened.row.costs.baked?.figures, this.state().measure);
    void (spot
      ? this.addresses.go(['/sight', opened.row.id], { at: spot.middle.join(',') })
      : this.addresses.go(['/layout', opened.row.id]));
  }

  /** The context menu of a line of the table. */
  menuOf({ id, level }: LevelRow): readonly MenuEntry[] {
    const findings = this.findings.open().filter(({ desk, place }) => desk === 'budget' && place.level === id);
    return [
      { text: 'Show causes', run: () => this.dispatch(budgetActions.levelOpened({ id })) },
      ...this.levelPlaces.entries(level.id).map((entry, i) => (i === 0 ? { ...entry, isFirstOfGroup: true } : entry)),
      ...(findings.length > 0
        ? [{ text: 'Accept with reason…', run: () => this.acceptances.ask(findings), isFirstOfGroup: true }]
        : []),
    ];
  }

  /** Shows what a part of the figure is, on the plan. @param part a piece, blocks, or a stratum; the kits lead to the pieces */
  show(part: string): void {
    const level = this.opened()?.row.id;
    if (level === undefined) return;
    this.workspace.openLevel(level);
    const [what, id] = [part.slice(0, part.indexOf(' ')), part.slice(part.indexOf(' ') + 1)];
    if (what === 'stratum')
      void (id === 'kit' ? this.addresses.go(['/detail']) : this.addresses.go(['/layout', level], { stratum: id }));
    else void this.addresses.go(['/layout', level], { uses: part });
  }

  private others(): string[] {
    return this.devices()
      .slice(1)
      .map(({ id }) => id);
  }
}

/** By how much a known figure is over its limit. */
function overText(
  measure: Measure,
  { state, value = 0 }: HeldFigure,
  limit: number,
): { readonly amount: string; readonly share: string } | undefined {
  if (state !== 'known' || value <= limit) return undefined;
  return { amount: `+${measureText(measure, value - limit)}`, share: `+${Math.round((value / limit - 1) * 100)} %` };
}

/** What the causes are counted from. */
function causesText(measure: Measure, { state }: HeldFigure): string {
  if (measure !== 'triangles' && measure !== 'draw calls')
    return state === 'known' ? 'all of the level' : 'at most: cut into cells';
  return state === 'known'
    ? 'worst place, in 360°'
    : state === 'stale'
      ? 'worst place, before the last change'
      : 'all content';
}

function notKnownText(measure: Measure, { value }: HeldFigure): string {
  if (value === undefined) return 'Nothing is counted yet: this level has no content.';
  if (measure === 'triangles' || measure === 'draw calls')
    return `At most ${measureText(measure, value)}, all content together, which would be over. Bake it to know.`;
  return `At most ${measureText(measure, value)}: the level is cut into cells. Rehearse a walk on the Cells desk to know.`;
}
