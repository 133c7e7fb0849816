import { Injectable, computed, inject, signal } from '@angular/core';
import { Dialogs } from '../../../../ui/dialogs';
import { Store } from '@ngrx/store';
import {
  DEFAULT_MOVEMENT,
  counted,
  plainJson,
  readSquare,
  type PlanPoint,
  type SolvedTiles,
  type TileFloor,
} from '@stravel/core';
import { Compute } from '../../../../compute/compute';
import { workUntilLeft } from '../../../../compute/work-in-hand';
import { DocumentRegistry } from '../../../../document/document-registry';
import { OpenLevel } from '../../../../document/level/open-level';
import { recordsFeature } from '../../../../document/records/records-store';
import { EditLog } from '../../../../edits/edit-log';
import { setRecordField } from '../../../../edits/operations';
import { LayoutDesk } from '../../editing/layout-desk';
import { LegendDialog, type LegendData } from './legend-dialog';
import {
  changeLines,
  filledFrom,
  floorText,
  newFloor,
  setGrid,
  setSquares,
  squareAt,
  squaresUnder,
} from './tile-edits';
import { TileTextDialog, type TileTextData } from './tile-text-dialog';

/** States that the solver looks at unless more are asked for. */
const STATE_LIMIT = 2000000;

/** Painting, reading and solving tile floors. */
@Injectable()
export class TilesDesk {
  private readonly store = inject(Store);
  private readonly dialogs = inject(Dialogs);
  private readonly compute = inject(Compute);
  private readonly registry = inject(DocumentRegistry);
  private readonly openLevel = inject(OpenLevel);
  private readonly edits = inject(EditLog);
  private readonly desk = inject(LayoutDesk);
  private readonly tables = this.store.selectSignal(recordsFeature.selectTables);
  private readonly work = workUntilLeft();

  private readonly settings = computed(() => Object.values(this.tables().collection).at(0));
  readonly legend = computed(() => this.settings()?.legend ?? []);
  /** Text of the squares that are painted. */
  readonly brush = computed(() => this.desk.settings().square);
  readonly isFilling = computed(() => this.desk.settings().fillsSquares);
  readonly solving = computed(() => this.work.progress()?.stage ?? '');
  private readonly found = signal<
    (SolvedTiles & { readonly level: string; readonly floors: readonly TileFloor[] }) | undefined
  >(undefined);
  /** What was found for the open level; that of another goes with it. */
  readonly solved = computed(() => {
    const found = this.found();
    return found?.level === this.openLevel.level()?.id ? found : undefined;
  });
  /** How far the way is played back. */
  readonly step = signal(0);
  /** Whether floors or legend changed since they were solved. */
  readonly isOld = computed(() => {
    this.registry.contentVersion();
    const solved = this.solved();
    const now = this.floors();
    return (
      solved !== undefined &&
      (solved.floors.length !== now.length || solved.floors.some((floor, i) => floor !== now[i]))
    );
  });
  readonly selected = computed(() => {
    const one = this.desk.oneOf('tileFloor');
    return one && { stratum: one.stratum, floor: one.item };
  });

  /** Paints the chosen floor under a line that was drawn; with none chosen, makes one over the rectangle. */
  async draw(points: readonly PlanPoint[], floorHeight: number, squareMetres: number): Promise<void> {
    const chosen = this.selected();
    const brush = this.brush();
    const fault = readSquare(brush, new Map(this.legend().map((code) => [code.code, code]))).fault;
    if (fault !== undefined) {
      this.desk.notify(`${fault}.`);
      return;
    }
    if (!chosen) {
      const [from, to] = [points[0], points[points.length - 1]];
      await this.desk.add('tileFloor', newFloor(from, to, floorHeight, squareMetres, brush), 'add a tile floor');
      return;
    }
    const { stratum, floor } = chosen;
    const first = squareAt(floor, points[0]);
    const squares = this.isFilling() ? (first ? filledFrom(floor, first) : []) : squaresUnder(floor, points);
    await this.desk.commit(
      this.isFilling() ? 'fill squares' : 'paint squares',
      setSquares(stratum, floor, squares, brush),
    );
  }

  async changeLines(what: 'row' | 'column', command: 'insert' | 'delete', at: number): Promise<void> {
    const chosen = this.selected();
    if (!chosen) return;
    const there = what === 'row' ? chosen.floor.rows : chosen.floor.columns;
    const grid = changeLines(chosen.floor, what, command, at);
    if (command === 'delete' && at >= there)
      this.desk.notify(`The floor has no ${what} ${at + 1}: it has ${counted(there, what)}.`);
    else if (grid) await this.desk.commit(`${command} a ${what}`, setGrid(chosen.stratum, chosen.floor, grid));
    else
      this.desk.notify(
        command === 'insert' ? 'The floor is as large as it can be.' : 'A floor keeps at least one row and one column.',
      );
  }

  async openText(): Promise<void> {
    const chosen = this.selected();
    if (!chosen) return;
    const data: TileTextData = {
      name: chosen.floor.name || 'Tile floor',
      text: floorText(chosen.floor),
      legend: this.legend(),
    };
    const read = await this.dialogs.open(TileTextDialog, data);
    const now = this.selected();
    if (read && now) await this.desk.commit('squares as text', setGrid(now.stratum, now.floor, read.rows));
  }

  async openLegend(): Promise<void> {
    const settings = this.settings();
    if (!settings) return;
    const data: LegendData = { legend: this.legend(), movement: settings.movement ?? DEFAULT_MOVEMENT };
    const made = await this.dialogs.open(LegendDialog, data);
    if (!made) return;
    await this.edits.commit('legend of the tile floors', [
      setRecordField('collection', settings, 'legend', plainJson(made.legend)),
      setRecordField('collection', settings, 'movement', plainJson(made.movement)),
    ]);
  }

  /** Solves all tile floors of the level together, in the worker. */
  async solve(): Promise<void> {
    this.cancel();
    const floors = this.floors();
    const level = this.openLevel.level()?.id ?? '';
    this.found.set(undefined);
    const input = {
      floors,
      legend: this.legend(),
      rules: this.settings()?.movement ?? DEFAULT_MOVEMENT,
      stateLimit: STATE_LIMIT,
    };
    const solved = await this.work.do('starting', () =>
      this.work.keep(this.compute.run('solve-tiles', input, { onProgress: this.work.say })),
    );
    if (solved) {
      this.found.set({ ...solved, level, floors });
      this.step.set(solved.way.length);
    } else if (this.work.failure()) this.desk.notify(this.work.failure());
  }

  cancel(): void {
    this.work.cancel();
  }

  private floors(): TileFloor[] {
    return this.openLevel.strata().flatMap((document) => [...document.tables.tileFloor.values()]);
  }
}
