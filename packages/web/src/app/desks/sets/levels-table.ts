import { Injectable, computed, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { BUDGET_MEASURES, PURPOSES, heldAt, type Level } from '@stravel/core';
import { Bakes } from '../../bakes/bakes';
import { costsOf } from '../../bakes/bakes-store';
import { levelCore, limitOf, measureText, type LevelCore } from '../../bakes/core-bands';
import { coreStrip, type CoreStrip } from '../../bakes/core-strip';
import { shelfInOrder, shelfRows } from '../../bakes/shelf-rows';
import { recordsFeature, selectPlayNumbers } from '../../document/records/records-store';
import { Readiness } from '../../readiness/readiness';
import { Session } from '../../session';
import type { StateMarkName } from '../../ui/state-mark';
import { Workspace } from '../../workspace';
import { FieldContext } from './fields/field-context';
import { searchText } from './search-texts';
import { setsActions, setsFeature, type LevelChip } from './store/sets-store';
import { levelColumns, plainRows, tableRows, type CoreColumn } from './table-rows';
import { ShownView } from './views/shown-view';

const CHIPS: readonly { readonly chip: LevelChip | 'all'; readonly name: string; readonly mark?: StateMarkName }[] = [
  { chip: 'all', name: 'All' },
  { chip: 'over', name: 'Over', mark: 'over' },
  { chip: 'not known', name: 'Not known', mark: 'not known' },
  { chip: 'not ready', name: 'Not ready', mark: 'not ready' },
];
/** Of a level of which nothing is counted. */
const NOT_HELD = { over: [], undecided: BUDGET_MEASURES };

/** What the table of levels and its shelf show: columns, the rows that filter, chips and view leave, and cores. */
@Injectable()
export class LevelsTable {
  private readonly store = inject(Store);
  private readonly bakes = inject(Bakes);
  private readonly session = inject(Session);
  private readonly workspace = inject(Workspace);
  private readonly context = inject(FieldContext);
  private readonly readiness = inject(Readiness);
  private readonly state = this.store.selectSignal(setsFeature.selectSetsState);
  private readonly tables = this.store.selectSignal(recordsFeature.selectTables);
  private readonly tree = this.store.selectSignal(recordsFeature.selectTree);
  private readonly levels = this.store.selectSignal(recordsFeature.selectLevels);
  private readonly fields = this.store.selectSignal(recordsFeature.selectFields);
  private readonly settings = this.store.selectSignal(recordsFeature.selectSettings);
  private readonly numbers = this.store.selectSignal(selectPlayNumbers);

  /** What the column of cores shows, each level's once; none without a device. */
  private readonly cores = computed((): CoreColumn | undefined => {
    const [device, bakes, { measure }] = [this.session.device(), this.bakes.byLevel(), this.state()];
    if (!device) return undefined;
    const known = new Map<string, { core: LevelCore; strip: CoreStrip }>();
    const of = (level: string): { core: LevelCore; strip: CoreStrip } => {
      let one = known.get(level);
      if (!one) {
        const core = levelCore(costsOf(heldAt(bakes, level)), device, measure);
        one = { core, strip: coreStrip(core, measure, limitOf(device, measure)) };
        known.set(level, one);
      }
      return one;
    };
    return { measure, strip: (level) => of(level).strip, value: (level) => of(level).core.held.value ?? null };
  });
  readonly allColumns = computed(() => {
    return levelColumns(this.fields(), PURPOSES, this.readiness.faultsOf(), this.context.figureStateOf(), this.cores());
  });
  readonly view = new ShownView(
    computed(() => null),
    this.allColumns,
  );
  readonly columns = this.view.columns;
  /** Whether a level is in a state, against the chosen device and by the rules for what is ready. */
  private readonly isOfChip = computed(() => {
    const [held, faultsOf] = [this.bakes.held(), this.readiness.faultsOf()];
    return (chip: LevelChip | 'all', { id }: Level): boolean => {
      if (chip === 'all') return true;
      if (chip === 'not ready') return faultsOf(id).length > 0;
      const { over, undecided } = held.get(id) ?? NOT_HELD;
      return chip === 'over' ? over.length > 0 : over.length === 0 && undecided.length > 0;
    };
  });
  /** The states that levels are filtered by, each with how many of the purpose there are of it. */
  readonly chips = computed(() => {
    const { purpose } = this.state();
    const levels = this.levels().filter((level) => purpose === 'all' || level.purpose === purpose);
    const isOf = this.isOfChip();
    return CHIPS.map((one) => ({ ...one, count: levels.filter((level) => isOf(one.chip, level)).length }));
  });
  readonly rows = computed(() => {
    const { filter, purpose, chip, folded } = this.state();
    const text = filter.trim().toLowerCase();
    const isOf = this.isOfChip();
    const wanted =
      text === '' && purpose === 'all' && chip === 'all'
        ? undefined
        : (level: Level): boolean =>
            (purpose === 'all' || level.purpose === purpose) && isOf(chip, level) && searchText(level).includes(text);
    const { conditions, sorts } = this.view.rules();
    const [numbers, groupOf, foldedSets] = [this.numbers(), this.view.groupOf(), new Set(folded)];
    const shown =
      conditions.length + sorts.length === 0 && !groupOf
        ? undefined
        : this.view.apply(wanted ? this.levels().filter(wanted) : this.levels());
    // An order and a gathering of one's own run across the sets.
    if (shown && (sorts.length > 0 || groupOf))
      return plainRows(shown, ({ id }) => String(numbers.get(id) ?? '·'), groupOf, foldedSets);
    const meeting = shown && new Set(shown);
    return tableRows(
      this.tree(),
      this.settings()?.ranks ?? [],
      numbers,
      foldedSets,
      meeting ? (level) => meeting.has(level) : wanted,
      this.readiness.faultsOf(),
    );
  });
  readonly isFiltered = computed(() => {
    const { filter, purpose, chip } = this.state();
    return filter !== '' || purpose !== 'all' || chip !== 'all' || this.view.rules().conditions.length > 0;
  });
  readonly shelf = computed(() => {
    const shelf = {
      bakes: this.bakes.byLevel(),
      device: this.session.device(),
      measure: this.state().measure,
      selected: this.workspace.level()?.id ?? '',
    };
    const { sorts } = this.view.rules();
    if (sorts.length === 0) return shelfRows(this.tree(), shelf);
    const column = this.allColumns().find(({ id }) => id === sorts[0].column);
    const levels = this.rows().flatMap((row) => heldAt(this.tables().level, row.id) ?? []);
    return shelfInOrder(levels, `By ${column?.name ?? 'the view'}${sorts[0].descending ? ', descending' : ''}`, shelf);
  });
  /** What the device of the top bar allows of the shelf's measure. */
  readonly limit = computed(() => {
    const device = this.session.device();
    return device
      ? {
          value: limitOf(device, this.state().measure),
          name: `${device.name} · ${measureText(this.state().measure, limitOf(device, this.state().measure))}`,
        }
      : { value: 0, name: '' };
  });
  showAll(): void {
    this.store.dispatch(setsActions.filterTyped({ text: '' }));
    this.store.dispatch(setsActions.purposeChosen({ purpose: 'all' }));
    this.store.dispatch(setsActions.chipChosen({ chip: 'all' }));
    this.view.rules.update((rules) => ({ ...rules, conditions: [] }));
  }
}
