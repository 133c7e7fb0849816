import { ChangeDetectionStrategy, Component, computed, effect, inject, input, untracked } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import { Store } from '@ngrx/store';
import {
  counted,
  NEW_LEVEL_NAME,
  PURPOSES,
  heldAt,
  isPlaceholderKey,
  keyFromName,
  newKey,
  type FieldValue,
  type FilledRecord,
  type Level,
  type LevelSet,
  type Operation,
} from '@stravel/core';
import { Addresses } from '../../addresses';
import { LevelPlaces } from '../../desk/level-places';
import { Commands } from '../../desk/commands';
import { DeskFrame, FRAME_DESK } from '../../desk/desk-frame';
import { recordsFeature } from '../../document/records/records-store';
import { EditLog } from '../../edits/edit-log';
import { setRecordField } from '../../edits/operations';
import { Dialogs } from '../../ui/dialogs';
import { SheetHost } from '../../level-desk/sheet-host';
import { Sheets } from '../../level-desk/sheets';
import { Chevron } from '../../ui/chevron';
import { StateChip } from '../../ui/state-chip';
import { Workspace } from '../../workspace';
import { PICTURE_VIEWS, type PictureView } from '../../plate/picture-views';
import { LevelDataCard } from './card/level-data-card';
import { CellWriter } from './bulk/cell-writer';
import { CsvTransfer } from './bulk/csv-transfer';
import { CodeGiver } from './codes/code-giver';
import { FieldContext } from './fields/field-context';
import { FieldDialogs } from './fields/field-dialogs';
import { binLevels, binSet, levelsOfSet, moveLevels, moveSet, newLevel, newSet } from './level-edits';
import { LevelHistories } from './history/level-histories';
import { SETS_DESK } from './manifest';
import type { ChooseSetData } from './parts/choose-set-dialog';
import { LevelsShelf } from './parts/levels-shelf';
import { RecordTable, type RowRequest } from './parts/record-table';
import { PictureMaker } from '../../bakes/pictures/picture-maker';
import { Readiness } from '../../readiness/readiness';
import { RegisterMaker } from './registers/register-maker';
import { LevelReuser } from './reuse/level-reuser';
import { SetsTabs } from './parts/sets-tabs';
import { readAhead } from './search-texts';
import { setsActions, setsFeature } from './store/sets-store';
import { ViewPanel } from './views/view-panel';
import { ViewsMenu } from './views/views-menu';
import { LevelsTable } from './levels-table';
import type { TableColumn, TableRow } from './table-rows';
import { SETS_SERVICES } from './services';

/** The Sets desk: all levels of the collection, as data. */
@Component({
  selector: 'sv-sets-page',
  imports: [
    Chevron,
    LevelDataCard,
    LevelsShelf,
    MatMenuModule,
    RecordTable,
    SetsTabs,
    SheetHost,
    StateChip,
    ViewPanel,
    ViewsMenu,
  ],
  providers: [SETS_SERVICES, { provide: FRAME_DESK, useValue: 'sets' }, DeskFrame, Sheets, LevelHistories, LevelsTable],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './sets-page.html',
  styleUrl: './sets-page.scss',
})
export class SetsPage {
  readonly registers = inject(RegisterMaker);
  private readonly store = inject(Store);
  private readonly edits = inject(EditLog);
  private readonly dialogs = inject(Dialogs);
  private readonly addresses = inject(Addresses);
  private readonly levelPlaces = inject(LevelPlaces);
  readonly workspace = inject(Workspace);
  readonly context = inject(FieldContext);
  readonly fieldDialogs = inject(FieldDialogs);
  readonly writer = inject(CellWriter);
  readonly readiness = inject(Readiness);
  readonly pictures = inject(PictureMaker);
  private readonly codes = inject(CodeGiver);
  private readonly reuser = inject(LevelReuser);
  private readonly csv = inject(CsvTransfer);
  private readonly sheets = inject(Sheets);
  private readonly histories = inject(LevelHistories);

  readonly state = this.store.selectSignal(setsFeature.selectSetsState);
  private readonly tables = this.store.selectSignal(recordsFeature.selectTables);
  private readonly tree = this.store.selectSignal(recordsFeature.selectTree);
  private readonly levels = this.store.selectSignal(recordsFeature.selectLevels);
  private readonly settings = this.store.selectSignal(recordsFeature.selectSettings);

  /** A line and a column to stand on, and a field to open, from the address. */
  readonly at = input<string>();
  readonly column = input<string>();
  readonly field = input<string>();
  readonly purposes = ['all', ...PURPOSES] as const;
  readonly chosen = computed(() => new Set(this.state().chosen));
  readonly table = inject(LevelsTable);
  readonly allColumns = this.table.allColumns;
  readonly view = this.table.view;
  readonly rows = this.table.rows;
  /** Its sizes and folds, as a person left them. */
  readonly frame = inject(DeskFrame);
  readonly isCardOpen = computed(() => this.frame.isOpen('Card', false));
  /** The level of the row that one stands on, else the open one. */
  readonly cardLevel = computed(
    () => heldAt(this.tables().level, this.state().active?.row ?? '') ?? this.workspace.level(),
  );
  readonly pictureViews = PICTURE_VIEWS;
  readonly shownCount = computed(() => this.rows().filter(({ kind }) => kind === 'record').length);
  readonly binnedCount = computed(
    () =>
      [...Object.values(this.tables().level), ...Object.values(this.tables().set)].filter(
        ({ binned }) => binned !== null,
      ).length,
  );
  readonly actions = setsActions;
  /** The one level of a new collection, as long as nothing was done with it. */
  readonly firstLevel = computed(() => {
    const [level, ...others] = this.levels();
    return level && others.length === 0 && level.strata.length === 0 ? level : undefined;
  });

  constructor() {
    inject(Commands).handle(SETS_DESK, {
      'new-level': { run: () => this.addLevel() },
      'from-template': { run: () => this.fromTemplate() },
      'new-set': { run: () => this.addSet() },
      fields: { run: () => this.fieldDialogs.list(null) },
      ready: { run: () => this.readiness.open() },
      codes: { run: () => this.openCodes() },
      start: { run: () => this.openStart() },
      'give-out': { run: () => this.takeOut() },
      'take-in': { run: () => this.takeIn() },
      bin: { run: () => this.openBin() },
    });
    effect((onCleanup) => onCleanup(readAhead(this.levels())));
    effect(() => {
      const [at, column] = [this.at(), this.column() ?? 'name'];
      if (at !== undefined) untracked(() => this.dispatch(setsActions.cellEntered({ cell: { row: at, column } })));
    });
    effect(() => {
      // The row that one stands on is the level of every desk.
      const row = this.state().active?.row ?? '';
      const isLevel = Object.hasOwn(this.tables().level, row);
      if (isLevel) untracked(() => this.workspace.openLevel(row));
    });
    effect(() => {
      const field = this.field();
      if (field !== undefined) untracked(() => this.fieldDialogs.editById(field));
    });
    effect(() => {
      const ready = this.levels().filter(({ id }) => this.readiness.faultsOf()(id).length === 0).length;
      this.workspace.footLeft.set([
        `${this.shownCount()} of ${counted(this.levels().length, 'level')} shown`,
        `${ready} ready`,
      ]);
      this.workspace.footRight.set([]);
    });
  }

  dispatch(action: ReturnType<(typeof setsActions)[keyof typeof setsActions]>): void {
    this.store.dispatch(action);
  }

  async changeLevel({
    record: level,
    column,
    value,
  }: {
    record: FilledRecord;
    column: TableColumn;
    value: FieldValue;
  }): Promise<void> {
    const together =
      this.chosen().has(level.id) && column.id !== 'name' && column.id !== 'key' && column.id !== 'code'
        ? this.chosenLevels()
        : [level];
    // What every level has is text; empty is no value there.
    const written = column.own ? value : String(value ?? '').trim();
    // The first name of a level makes its key too; later names leave it.
    const rekeyed =
      column.id === 'name' && 'key' in level && isPlaceholderKey(level.key) && keyFromName(String(written)) !== ''
        ? [setRecordField('level', level, 'key', newKey(this.tables(), 'level', String(written)))]
        : [];
    const label =
      together.length > 1 ? `${column.name} of ${together.length} levels` : `${column.name} of ${level.name}`;
    await this.edits.commit(label, [
      ...together.map((one) => setRecordField('level', one, column.path, written)),
      ...rekeyed,
    ]);
  }

  async renameSet({ set, name }: { set: LevelSet; name: string }): Promise<void> {
    await this.edits.commit(`rename ${set.name}`, [setRecordField('set', set, 'name', name)]);
  }

  async addSet(parent: string | null = null): Promise<void> {
    const { set, operations } = newSet(this.tables(), parent, 'New set');
    await this.edits.commit('new set', operations);
    this.dispatch(setsActions.editingStarted({ cell: { row: set.id, column: 'name' } }));
  }

  async addLevel(setId?: string): Promise<void> {
    const set = setId ?? this.activeSet();
    // Where there is no set yet, the level brings one.
    const made = set === undefined ? newSet(this.tables(), null, `${this.settings()?.ranks[0] ?? 'Set'} 1`) : undefined;
    const { level, operations } = newLevel(this.tables(), set ?? made?.set.id ?? '', NEW_LEVEL_NAME);
    await this.edits.commit('new level', [...(made?.operations ?? []), ...operations]);
    this.dispatch(setsActions.editingStarted({ cell: { row: level.id, column: 'name' } }));
  }

  async request({ row, request }: { row: TableRow; request: RowRequest }): Promise<void> {
    if (row.kind === 'set') await this.requestOfSet(row.set, request);
    else if (row.kind === 'record') {
      const level = this.tables().level[row.id];
      await this.requestOfLevels(this.chosen().has(row.id) ? this.chosenLevels() : [level], level, request);
    }
  }

  async drop({ row, before }: { row: TableRow; before: TableRow | undefined }): Promise<void> {
    const level = heldAt(this.tables().level, row.id);
    // In an order of one's own there is no place to drop into.
    if (!level || this.view.rules().sorts.length > 0 || this.view.rules().group) return;
    const rows = this.rows().filter(({ id }) => id !== row.id);
    const at = before ? rows.findIndex(({ id }) => id === before.id) : rows.length;
    const above = rows.at(at - 1);
    const setOf = (one: TableRow | undefined): string | undefined =>
      one?.kind === 'set' ? one.id : this.tables().level[one?.id ?? '']?.set;
    const set = before?.kind === 'record' ? setOf(before) : setOf(above);
    if (set === undefined || at === 0) return;
    await this.commitMoves(
      [level],
      moveLevels(this.tables(), [level], set, before?.kind === 'record' ? before.id : null),
    );
  }

  async openInLayout(id: string): Promise<void> {
    await this.levelPlaces.open(id, 'layout');
  }

  toggleCard(): void {
    this.sheets.close();
    this.frame.flip('Card', false);
  }

  async openIn(desk: string): Promise<void> {
    const level = this.cardLevel();
    if (level) await this.levelPlaces.open(level.id, desk);
  }

  duplicateOpen(): void {
    const level = this.cardLevel();
    if (level) this.reuse([level]);
  }

  takeOut(): void {
    this.csv.takeOut(null, this.allColumns(), this.settings()?.name ?? 'levels');
  }

  takeIn(): void {
    this.csv.takeIn(null, this.allColumns());
  }

  pickCore(id: string): void {
    this.workspace.openLevel(id);
    this.dispatch(setsActions.cellEntered({ cell: { row: id, column: 'name' } }));
  }

  /** Goes to the stratum of a band; the kit's band leads to the pieces. */
  async pickBand({ core, band }: { core: string; band: string }): Promise<void> {
    this.workspace.openLevel(core);
    await (band === 'kit' ? this.addresses.go(['/detail']) : this.addresses.go(['/layout', core], { stratum: band }));
  }

  /** Why a cell holds what it holds. */
  explain({ record, column }: { record: FilledRecord; column: TableColumn }): void {
    if (column.id === 'ready') this.readiness.open(record.id);
  }

  changeChosen(): void {
    this.writer.change('level', this.chosenLevels(), this.allColumns());
  }

  async makePictures(view: PictureView, levels: readonly Level[]): Promise<void> {
    await this.pictures.make(levels, view);
  }

  openStart(): void {
    void this.dialogs.bring(
      () => import('./start/start-dialog').then(({ StartDialog }) => StartDialog),
      this.tables().level[this.state().active?.row ?? '']?.id,
    );
  }

  openCodes(): void {
    this.codes.open(this.chosen());
  }

  fromTemplate(): void {
    this.reuse([]);
  }

  openBin(): void {
    void this.dialogs.bring(() => import('./parts/bin-dialog').then(({ BinDialog }) => BinDialog), undefined);
  }

  moveChosen(): void {
    this.askForSet(this.chosenLevels());
  }

  duplicateChosen(): void {
    this.reuse(this.chosenLevels());
  }

  async binChosen(): Promise<void> {
    await this.bin(this.chosenLevels());
  }

  private async requestOfSet(set: LevelSet, request: RowRequest): Promise<void> {
    if (request === 'new-level') await this.addLevel(set.id);
    else if (request === 'new-set') await this.addSet(set.id);
    else if (request === 'up' || request === 'down')
      await this.edits.commit(`move ${set.name}`, moveSet(this.tables(), set, request === 'up' ? -1 : 1));
    else if (request === 'bin')
      await this.edits.commit(`${set.name} to the bin`, binSet(this.tables(), set, new Date().toISOString()));
  }

  private async requestOfLevels(levels: readonly Level[], one: Level, request: RowRequest): Promise<void> {
    if (request === 'open') await this.openInLayout(one.id);
    else if (request === 'card') this.card(one.id);
    else if (request === 'order') await this.addresses.go(['/sets/order'], { level: one.id });
    else if (request === 'history') {
      if (!this.isCardOpen() || this.cardLevel()?.id !== one.id) this.card(one.id);
      await this.histories.show(one.id);
    } else if (request === 'picture of plan' || request === 'picture of model')
      await this.makePictures(request === 'picture of plan' ? 'plan' : 'model', levels);
    else if (request === 'duplicate') this.reuse(levels);
    else if (request === 'bin') await this.bin(levels);
    else if (request === 'move') this.askForSet(levels);
    else if (request === 'up' || request === 'down') await this.step(one, request === 'up' ? -1 : 1);
  }

  /** Opens the card of a level, or closes it where it is open. */
  private card(id: string): void {
    if (this.isCardOpen() && this.cardLevel()?.id === id) {
      this.toggleCard();
      return;
    }
    this.sheets.close();
    this.dispatch(setsActions.cellEntered({ cell: { row: id, column: this.state().active?.column ?? 'name' } }));
    if (!this.isCardOpen()) this.frame.flip('Card', false);
  }

  private async step(level: Level, by: 1 | -1): Promise<void> {
    const siblings = levelsOfSet(this.tables(), level.set);
    const at = siblings.findIndex(({ id }) => id === level.id) + by;
    if (at < 0 || at >= siblings.length) return;
    const before = by < 0 ? siblings[at] : siblings[at + 1];
    await this.commitMoves([level], moveLevels(this.tables(), [level], level.set, before?.id ?? null));
  }

  private askForSet(levels: readonly Level[]): void {
    const data: ChooseSetData = {
      title: `Move ${levels.length === 1 ? levels[0].name : `${levels.length} levels`} to`,
      tree: this.tree(),
    };
    void this.dialogs
      .bring(() => import('./parts/choose-set-dialog').then(({ ChooseSetDialog }) => ChooseSetDialog), data)
      .then((set) => {
        if (set !== undefined) void this.commitMoves(levels, moveLevels(this.tables(), levels, set, null));
      });
  }

  private async commitMoves(levels: readonly Level[], operations: readonly Operation[]): Promise<void> {
    await this.edits.commit(
      levels.length === 1 ? `move ${levels[0].name}` : `move ${levels.length} levels`,
      operations,
    );
  }

  /** Duplicates levels, or makes one of a template when there are none; stands on the first then. */
  private reuse(levels: readonly Level[]): void {
    this.reuser.open(levels, this.activeSet() ?? '', (first) => {
      this.dispatch(setsActions.levelsChosen({ ids: [] }));
      this.dispatch(setsActions.cellEntered({ cell: { row: first.id, column: 'name' } }));
    });
  }

  /** Set in which something new goes: where the active cell stands, else the first at the bottom of the tree. */
  private activeSet(): string | undefined {
    const active = this.state().active?.row ?? '';
    return this.tables().level[active]?.set ?? (this.tables().set[active]?.id || this.deepestFirstSet());
  }

  private async bin(levels: readonly Level[]): Promise<void> {
    await this.edits.commit(
      levels.length === 1 ? `${levels[0].name} to the bin` : `${levels.length} levels to the bin`,
      binLevels(levels, new Date().toISOString()),
    );
    this.dispatch(setsActions.levelsChosen({ ids: [] }));
  }

  chosenLevels(): Level[] {
    return this.levels().filter(({ id }) => this.chosen().has(id));
  }

  private deepestFirstSet(): string | undefined {
    let node = this.tree().at(0);
    while (node && node.sets.length > 0) node = node.sets[0];
    return node?.set.id;
  }
}
