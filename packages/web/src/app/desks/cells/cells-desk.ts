import { DestroyRef, Injectable, computed, effect, inject, signal, untracked } from '@angular/core';
import { Store } from '@ngrx/store';
import {
  CoreError,
  RECORDS_DOCUMENT,
  canonicalJson,
  errorText,
  placedFilesOf,
  plainJson,
  recutRules,
  targetOf,
  type CellGrid,
  type CutLevel,
  type Device,
  type Json,
  type PlanPoint,
  type Rehearsal,
} from '@stravel/core';
import { Bakes } from '../../bakes/bakes';
import { isToBeOpened, stateOfOpen } from '../../bakes/bakes-store';
import { KitLoads } from '../../bakes/kit-loads';
import { Rehearsing } from '../../bakes/rehearsing';
import { Compute } from '../../compute/compute';
import { DocumentRegistry } from '../../document/document-registry';
import { LevelSections } from '../../document/level/level-sections';
import { OpenLevel } from '../../document/level/open-level';
import { recordsFeature } from '../../document/records/records-store';
import { EditLog } from '../../edits/edit-log';
import { create, newId, remove, setRecordField } from '../../edits/operations';
import { Session } from '../../session';
import { cellsActions, cellsFeature } from './store/cells-store';
import { WaitingPath } from './waiting-path';

/** Cells are cut anew this long after the last change, milliseconds. */
const SETTLE_MS = 250;

/** A grid for a level that has none: cells of a size that streams well on foot. */
const NEW_GRID: Omit<CellGrid, 'id'> = {
  sizeMetres: 32,
  origin: [0, 0],
  loadMetres: 48,
  dropMetres: 72,
  readyMetres: 0,
  resident: [],
};
/** What is set of a grid, in this order. */
const GRID_FIELDS = [
  'sizeMetres',
  'origin',
  'loadMetres',
  'dropMetres',
  'readyMetres',
  'resident',
  'volumeRules',
] as const satisfies readonly (keyof CellGrid)[];
const WALKING_METRES_PER_SECOND = 4;

/** What the Cells desk shows and does. */
@Injectable()
export class CellsDesk {
  private readonly store = inject(Store);
  private readonly edits = inject(EditLog);
  private readonly compute = inject(Compute);
  private readonly registry = inject(DocumentRegistry);
  private readonly session = inject(Session);
  private readonly tables = this.store.selectSignal(recordsFeature.selectTables);
  private readonly kitLoads = inject(KitLoads);
  private readonly waiting = inject(WaitingPath);
  readonly bakes = inject(Bakes);
  readonly openLevel = inject(OpenLevel);
  readonly sections = inject(LevelSections);
  readonly state = this.store.selectSignal(cellsFeature.selectCellsState);
  /** Goes on when the desk is left. */
  private readonly rehearsing = inject(Rehearsing);
  private readonly opened = this.rehearsing.opened;
  private timer: ReturnType<typeof setTimeout> | undefined;

  readonly progress = this.rehearsing.progress;
  readonly failure = this.rehearsing.failure;
  readonly cut = signal<{ readonly level: string; readonly cut: CutLevel } | undefined>(undefined);
  readonly grid = computed((): CellGrid | undefined => this.tables().cellGrid[this.openLevel.level()?.id ?? '']);
  readonly walks = computed(() =>
    Object.values(this.tables().rehearsal).filter(({ level }) => level === this.openLevel.level()?.id),
  );
  readonly walk = computed(
    (): Rehearsal | undefined => this.walks().find(({ id }) => id === this.state().walk) ?? this.walks().at(0),
  );
  readonly device = computed((): Device | undefined => this.tables().device[this.walk()?.device ?? '']);
  readonly result = computed(() => {
    const opened = this.opened();
    return opened && opened.walk === this.walk()?.id ? opened.result : undefined;
  });
  private readonly listed = computed(() =>
    this.bakes
      .byLevel()
      [this.openLevel.level()?.id ?? '']?.rehearsals.find(({ rehearsal }) => rehearsal === this.walk()?.id),
  );
  private readonly openKey = computed(() => {
    const opened = this.opened();
    return opened && opened.walk === this.walk()?.id ? opened.key : undefined;
  });
  readonly walkState = computed(() => stateOfOpen(this.listed(), this.openKey()));
  readonly cells = computed((): CutLevel | undefined => {
    const cut = this.cut();
    return cut && cut.level === this.openLevel.level()?.id && this.grid() ? cut.cut : undefined;
  });

  constructor() {
    inject(DestroyRef).onDestroy(() => clearTimeout(this.timer));
    effect(() => {
      const level = this.openLevel.level();
      const grid = this.grid();
      this.registry.contentVersion();
      const ready = level && grid && !this.openLevel.isLoading();
      untracked(() => {
        clearTimeout(this.timer);
        if (ready) this.timer = setTimeout(() => void this.cutNow(level.id), SETTLE_MS);
      });
    });
    // A path that waited for a device becomes a walk.
    effect(() => {
      const path = this.waiting.path();
      if (!path || path.level !== this.openLevel.level()?.id || !this.session.device()) return;
      untracked(() => {
        this.waiting.drop();
        void this.addWalk(path.knots, path.floorMetres);
      });
    });
    // The kept rehearsal of the walk in hand is opened when there is one.
    effect(() => {
      const walk = this.walk();
      // What a job or another page has rehearsed since takes the place of what is open.
      const isToRead = isToBeOpened(this.listed(), this.openKey());
      if (!walk || !isToRead) return;
      untracked(() => {
        if (!this.progress()) void this.rehearsing.read(walk.id);
      });
    });
  }

  async cutLevel(): Promise<void> {
    const level = this.openLevel.level();
    if (!level) return;
    await this.edits.commit('cut the level into cells', [
      create(RECORDS_DOCUMENT, 'cellGrid', { id: level.id, ...NEW_GRID }),
    ]);
  }

  async uncut(): Promise<void> {
    const grid = this.grid();
    if (grid) await this.edits.commit('undo the cut into cells', [remove(RECORDS_DOCUMENT, 'cellGrid', grid)]);
  }

  /** Sets a number of the grid; the load rule is kept: ready ≤ load ≤ drop. */
  async setGrid(over: Partial<Omit<CellGrid, 'id'>>): Promise<void> {
    const grid = this.grid();
    if (!grid) return;
    const next = { ...grid, ...over };
    if (over.dropMetres !== undefined) next.loadMetres = Math.min(next.loadMetres, next.dropMetres);
    if (over.loadMetres !== undefined || over.dropMetres !== undefined)
      next.readyMetres = Math.min(next.readyMetres, next.loadMetres);
    if (over.readyMetres !== undefined) next.loadMetres = Math.max(next.loadMetres, next.readyMetres);
    next.dropMetres = Math.max(next.dropMetres, next.loadMetres);
    try {
      if (grid.volumeRules && (over.sizeMetres !== undefined || over.origin !== undefined))
        next.volumeRules = recutRules(grid.volumeRules, grid, next);
    } catch (error) {
      this.failure.set(errorText(error));
      return;
    }
    this.failure.set('');
    const fields = GRID_FIELDS.filter(
      (field) => canonicalJson(plainJson(next[field] ?? null)) !== canonicalJson(plainJson(grid[field] ?? null)),
    );
    if (fields.length > 0)
      await this.edits.commit(
        'change the cells',
        fields.map((field) => setRecordField('cellGrid', grid, field, plainJson(next[field] ?? null))),
      );
  }

  async toggleResident(stratum: string): Promise<void> {
    const grid = this.grid();
    if (grid)
      await this.setGrid({
        resident: grid.resident.includes(stratum)
          ? grid.resident.filter((id) => id !== stratum)
          : [...grid.resident, stratum],
      });
  }

  /** Adds a walk along a path drawn on the plan, or gives the walk in hand another path. */
  async keepPath(knots: readonly PlanPoint[], floorMetres: number): Promise<void> {
    const walk = this.walk();
    if (walk) {
      await this.edits.commit('draw another path', [
        setRecordField('rehearsal', walk, 'knots', plainJson(knots)),
        setRecordField('rehearsal', walk, 'floorMetres', floorMetres),
      ]);
      return;
    }
    await this.addWalk(knots, floorMetres);
  }

  async addWalk(knots: readonly PlanPoint[] = [], floorMetres = 0): Promise<void> {
    const level = this.openLevel.level();
    const device = this.session.device();
    if (!level) return;
    if (!device) {
      if (knots.length > 0) this.waiting.keep({ level: level.id, knots, floorMetres });
      this.failure.set(
        `There is no device to walk with. ${knots.length > 0 ? 'The path is kept and becomes a walk as soon as you add one. ' : ''}Add one on the Devices page.`,
      );
      return;
    }
    const walk: Rehearsal = {
      id: newId(),
      level: level.id,
      name: `Walk ${this.walks().length + 1}`,
      knots,
      floorMetres,
      speedMetresPerSecond: WALKING_METRES_PER_SECOND,
      device: device.id,
    };
    await this.edits.commit('add a walk', [create(RECORDS_DOCUMENT, 'rehearsal', walk)]);
    this.store.dispatch(cellsActions.walkChosen({ id: walk.id }));
  }

  async setWalk(field: 'name' | 'speedMetresPerSecond' | 'device' | 'floorMetres', value: Json): Promise<void> {
    const walk = this.walk();
    if (walk) await this.edits.commit('change a walk', [setRecordField('rehearsal', walk, field, value)]);
  }

  async removeWalk(): Promise<void> {
    const walk = this.walk();
    if (walk) await this.edits.commit('delete a walk', [remove(RECORDS_DOCUMENT, 'rehearsal', walk)]);
  }

  async rehearse(): Promise<void> {
    const level = this.openLevel.level();
    const grid = this.grid();
    const walk = this.walk();
    const device = this.device();
    if (!level || !grid || !walk || this.progress()) return;
    if (!device) {
      this.failure.set(`The device of ${walk.name} was deleted. Choose another.`);
      return;
    }
    await this.rehearsing.rehearse(level.id, walk.id);
  }

  cancel(): void {
    this.rehearsing.cancel();
  }

  private async cutNow(level: string): Promise<void> {
    const grid = this.grid();
    if (!grid) return;
    try {
      const { held, documents } = await this.bakes.stored(level);
      const tables = this.tables();
      const { piece: pieces, kit: kits } = tables;
      const placed = placedFilesOf(targetOf(tables));
      const input = { level: held, pieces, kits, kitLoads: await this.kitLoads.of(), placed, grid };
      this.cut.set({ level, cut: await this.compute.run('cut-level', input, { slot: 'cut', documents }).result });
    } catch (error) {
      if (!(error instanceof CoreError && error.code === 'CANCELLED')) this.failure.set(errorText(error));
    }
  }
}
