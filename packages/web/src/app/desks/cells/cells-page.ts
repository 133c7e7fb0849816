import { counted } from '@stravel/core';
import { NgTemplateOutlet } from '@angular/common';
import { CountedPipe } from '../../ui/counted-pipe';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { Store } from '@ngrx/store';
import type { Box3, LateCell, PlanPoint } from '@stravel/core';
import { Commands } from '../../desk/commands';
import { toldKeys } from '../../desk/keys';
import { recordsFeature } from '../../document/records/records-store';
import { followLevel } from '../../level-desk/follow-level';

import type { CostScale } from '../../plate/cost-scale';
import { LevelView } from '../../plate/level-view';
import { LevelDesk } from '../../level-desk/level-desk';
import type { PlanPointer, PlateDrawing, PlateMenu } from '../../plate/plate-drawing';
import type { MenuEntry } from '../../ui/context-menus';
import { Session } from '../../session';
import { bytesText, countText, timeText } from '../../ui/amount';
import { NumberField } from '../../ui/number-field';
import { BakeStateLine } from '../../level-desk/bake-state';
import { ColumnSection } from '../../level-desk/column-section';
import { CostLegend } from '../../level-desk/cost-legend';
import { levelDesk } from '../../level-desk/level-desk-view';
import { StrataLines } from '../../level-desk/strata-lines';
import { StrataList } from '../../level-desk/strata-list';
import { LimitBar } from '../../ui/limit-bar';
import { ToolButton } from '../../ui/tool-button';
import { ToolOptions } from '../../ui/tool-options';
import { Workspace } from '../../workspace';
import { CELLS_DESK } from './manifest';
import { CellsDesk } from './cells-desk';
import { drawWalk, measureOf, paintCells } from './cells-drawing';
import { CELL_MEASURES, cellsActions, type CellMeasure } from './store/cells-store';
import { CellRules } from './parts/cell-rules';
import { lateReasons, placeAtMs } from './timeline/timeline-lanes';
import { WalkPlayer } from '../../ui/walk-player';
import { WalkTimeline } from './timeline/walk-timeline';
import { WaitingPath } from './waiting-path';
import { LoadVolumes } from './volumes/load-volumes';
import { drawLoadVolumes } from './volumes/volume-drawing';
import { VolumePointer } from './volumes/volume-pointer';
import { VolumeRules } from './volumes/volume-rules';
import { FirstVisit } from '../../guide/first-visit';

const SNAP_METRES = 0.5;
/** What a limit is typed in. */
const UNITS: Readonly<Record<CellMeasure, number>> = { bytes: 1e6, triangles: 1000, objects: 1 };
/** Links that were fired, as many as the card tells. */
const MAX_FIRED = 40;

/** The Cells desk: a level cut into cells, and a rehearsal of what is there when. */
@Component({
  selector: 'sv-cells-page',
  imports: [
    BakeStateLine,
    CellRules,
    ColumnSection,
    CostLegend,
    CountedPipe,
    FirstVisit,
    LevelDesk,
    LimitBar,
    NgTemplateOutlet,
    NumberField,
    StrataList,
    ToolButton,
    ToolOptions,
    VolumeRules,
    WalkTimeline,
  ],
  providers: [
    levelDesk({ desk: 'cells', bottom: -1.5, storeyMetres: 30 }),
    CellsDesk,
    LoadVolumes,
    StrataLines,
    WaitingPath,
    WalkPlayer,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './cells-page.html',
  styleUrl: './cells-page.scss',
})
export class CellsPage {
  readonly id = input<string>();
  /** A spot to go to, 'x,y,z' in metres; a finding leads here. */
  readonly at = input<string>();
  private readonly store = inject(Store);
  private readonly commands = inject(Commands);
  private readonly workspace = inject(Workspace);
  private readonly tables = this.store.selectSignal(recordsFeature.selectTables);
  readonly session = inject(Session);
  readonly desk = inject(CellsDesk);
  readonly player = inject(WalkPlayer);
  readonly volumes = inject(LoadVolumes);
  readonly openLevel = this.desk.openLevel;
  readonly state = this.desk.state;
  readonly devices = this.store.selectSignal(recordsFeature.selectDevices);
  readonly actions = cellsActions;
  readonly measures = CELL_MEASURES;
  readonly bytes = bytesText;
  readonly count = countText;
  readonly time = timeText;
  readonly mostFired = MAX_FIRED;
  private readonly levelDesk = viewChild(LevelDesk);
  private readonly plate = computed(() => this.levelDesk()?.plate());
  /** Knots of a path that is being drawn. */
  private readonly drawn = signal<readonly PlanPoint[]>([]);
  /** Corners of a volume that is being drawn. */
  private readonly dragged = signal<readonly [PlanPoint, PlanPoint] | undefined>(undefined);
  private readonly volumePointer = new VolumePointer(
    this.volumes,
    (pointer) => this.cellAt(pointer),
    (pointer) => this.snapped(pointer),
    (corners) => this.dragged.set(corners),
  );

  readonly view = inject(LevelView);
  readonly range = this.view.range;
  readonly strata = computed(() =>
    (this.openLevel.level()?.strata ?? []).flatMap(({ stratum }) => {
      const record = this.tables().stratum[stratum];
      return record
        ? [{ id: stratum, name: record.name, isResident: this.desk.grid()?.resident.includes(stratum) ?? false }]
        : [];
    }),
  );
  readonly measureText = computed(() => (this.state().measure === 'bytes' ? bytesText : countText));
  readonly strataLines = inject(StrataLines).memory;
  readonly isTimelineOpen = computed(() => this.view.frame.isOpen('Timeline'));
  /** Key of the cell under the pointer. */
  private readonly hovered = signal<string | undefined>(undefined);
  /** What a cell may have of the chosen measure. */
  readonly limit = computed(() => this.state().limits[this.state().measure]);
  readonly limitShown = computed(() => {
    const limit = this.limit();
    return limit === undefined ? null : limit / UNITS[this.state().measure];
  });
  /** Of the fullest cell. */
  readonly most = computed(() => {
    const { measure } = this.state();
    return (this.desk.cells()?.cells ?? []).reduce((most, cell) => Math.max(most, measureOf(cell, measure)), 0);
  });
  readonly scale = computed((): CostScale => ({ limit: this.limit(), most: this.most() }));
  readonly lateKeys = computed(() => new Set((this.desk.result()?.late ?? []).map(({ key }) => key)));
  readonly paint = computed(() => {
    const cut = this.desk.cells();
    const { measure, cell: chosen } = this.state();
    const [text, late, hovered] = [this.measureText(), this.lateKeys(), this.hovered()];
    const scale = this.scale();
    return (drawing: PlateDrawing): void => {
      if (cut) paintCells(drawing, cut, { measure, text, chosen, hovered, late, scale });
    };
  });
  readonly overlay = computed(() => {
    const [drawn, walk, grid, result] = [this.drawn(), this.desk.walk(), this.desk.grid(), this.desk.result()];
    const { spot } = this.state();
    const [cut, volumes] = [
      this.desk.cells(),
      { rules: this.volumes.rules(), chosen: this.isOfVolumes() ? this.volumes.chosen() : '', dragged: this.dragged() },
    ];
    return (drawing: PlateDrawing): void => {
      if (cut) drawLoadVolumes(drawing, cut, volumes);
      drawWalk(
        drawing,
        drawn.length > 0 ? drawn : (walk?.knots ?? []),
        grid,
        drawn.length > 0 ? undefined : result,
        spot,
        walk?.floorMetres ?? 0,
      );
    };
  });
  /** Largest first; what only tells of others takes no memory. */
  readonly meshFiles = computed(() =>
    (this.desk.cells()?.meshFiles ?? [])
      .filter(({ memoryBytes }) => memoryBytes > 0)
      .sort((a, b) => b.memoryBytes - a.memoryBytes),
  );
  readonly inHand = computed(() => this.desk.cells()?.cells.find(({ key }) => key === this.state().cell));
  readonly heaviest = computed(() => {
    const { measure } = this.state();
    return [...(this.desk.cells()?.cells ?? [])]
      .sort((a, b) => measureOf(b, measure) - measureOf(a, measure))
      .slice(0, 5);
  });
  readonly isDrawing = computed(() => this.state().tool === 'path');
  private readonly hasGrid = computed(() => this.desk.grid() !== undefined);
  readonly isOfVolumes = computed(() => this.state().tool === 'volume');
  readonly drawnCount = computed(() => this.drawn().length);

  readonly keys = toldKeys(CELLS_DESK);

  constructor() {
    followLevel({
      key: this.id,
      plate: this.plate,
      opened: () => {
        this.drawn.set([]);
        this.volumes.chosen.set('');
        this.player.forget();
        this.dispatch(cellsActions.levelOpened());
      },
      frame: () => this.frameLevel(),
    });
    // After the level is followed: what is called from elsewhere is done in the level that it opens.
    this.commands.handle(CELLS_DESK, {
      path: { run: () => this.dispatch(cellsActions.toolChosen({ tool: 'path' })) },
      volume: { run: () => this.dispatch(cellsActions.toolChosen({ tool: 'volume' })), enabled: this.hasGrid },
      'keep-path': { run: () => this.finishPath(), enabled: this.isDrawing },
      'drop-knot': { run: () => this.drawn.update((knots) => knots.slice(0, -1)), enabled: this.isDrawing },
      play: {
        run: () => this.player.toggle(this.desk.result()?.figures.durationMs ?? 0),
        enabled: () => this.desk.result() !== undefined && this.isTimelineOpen(),
      },
      rehearse: { run: () => this.desk.rehearse(), enabled: this.openLevel.isThere },
      ...this.view.handlers(() => this.frameLevel()),
      'let-go': { run: () => this.letGo() },
    });
    effect(() => {
      const at = this.at()?.split(',').map(Number);
      if (at?.length !== 3 || !at.every(Number.isFinite) || !this.plate() || this.openLevel.isLoading()) return;
      untracked(() => setTimeout(() => this.goTo(at[0], at[2])));
    });
    effect(() => {
      // The playhead moves the walker on plan and model.
      const ms = this.player.atMs();
      const spot = ms === undefined ? undefined : placeAtMs(this.desk.result()?.track ?? [], ms);
      if (spot) untracked(() => this.dispatch(cellsActions.spotChosen({ spot })));
    });
    effect(() => {
      const cut = this.desk.cells();
      const grid = this.desk.grid();
      this.workspace.footLeft.set(
        cut && grid
          ? [
              `${counted(cut.cells.length, 'cell')} of ${grid.sizeMetres} m`,
              `${cut.straddlers.length} cross a border`,
              `${cut.residentThings.length} too large for a cell`,
              'Counts switched-off strata too',
            ]
          : ['not cut into cells'],
      );
      this.workspace.footRight.set([`${this.range().bottom} to ${this.range().top} m`]);
    });
  }

  dispatch(action: ReturnType<(typeof cellsActions)[keyof typeof cellsActions]>): void {
    this.store.dispatch(action);
  }

  /** The context menu of a place: what a click there shows is shown first. */
  readonly menuOf = ({ pointer }: PlateMenu): readonly MenuEntry[] => {
    if (pointer && this.state().tool === 'look') this.pointer(pointer);
    return this.commands.entries(CELLS_DESK);
  };

  pointer(pointer: PlanPointer): void {
    if (pointer.phase === 'move') this.hovered.set(this.cellAt(pointer));
    if (this.isOfVolumes()) {
      this.volumePointer.pointer(pointer);
      return;
    }
    if (pointer.phase !== 'up') return;
    if (this.state().tool === 'path') {
      this.drawn.update((knots) => [...knots, this.snapped(pointer)]);
      return;
    }
    if (!this.desk.grid()) return;
    this.dispatch(cellsActions.cellChosen({ cell: this.cellAt(pointer) ?? null }));
    this.dispatch(cellsActions.spotChosen({ spot: [pointer.x, pointer.z] }));
  }

  /** Takes a volume in hand, or none, with its tool. @param id of the volume, '' to draw a new one */
  chooseVolume(id: string): void {
    this.volumes.chosen.set(id);
    this.dispatch(cellsActions.toolChosen({ tool: 'volume' }));
  }

  private snapped({ x, z, event }: PlanPointer): PlanPoint {
    const snap = (value: number): number => (event.altKey ? value : Math.round(value / SNAP_METRES) * SNAP_METRES);
    return [snap(x), snap(z)];
  }

  measureBy(index: number): void {
    this.dispatch(cellsActions.measureChosen({ measure: CELL_MEASURES[index] }));
  }

  /** Nothing is no limit. */
  setLimit(value: number): void {
    const { measure } = this.state();
    this.dispatch(cellsActions.limitSet({ measure, limit: value > 0 ? value * UNITS[measure] : undefined }));
  }

  /** Key of the cell at a point of the plan that has content. */
  private cellAt({ x, z }: PlanPointer): string | undefined {
    const grid = this.desk.grid();
    if (!grid) return undefined;
    const key = [x - grid.origin[0], z - grid.origin[1]]
      .map((metres) => Math.floor(metres / grid.sizeMetres))
      .join(',');
    return this.desk.cells()?.cells.some((cell) => cell.key === key) ? key : undefined;
  }

  async finishPath(): Promise<void> {
    const knots = this.drawn();
    if (knots.length < 2) return;
    this.drawn.set([]);
    this.dispatch(cellsActions.toolChosen({ tool: 'look' }));
    await this.desk.keepPath(knots, Math.round((this.range().bottom + 1.5) * 1000) / 1000);
  }

  /** A box that is being drawn first, then the volume in hand, then the tool. */
  private letGo(): void {
    if (this.volumePointer.drop()) return;
    if (this.isOfVolumes() && this.volumes.chosen() !== '') {
      this.volumes.chosen.set('');
      return;
    }
    this.drawn.set([]);
    this.dispatch(cellsActions.toolChosen({ tool: 'look' }));
    this.desk.cancel();
  }

  private frameLevel(): void {
    this.plate()?.frameStrata(this.strata().map(({ id }) => id));
  }

  /** Stands where the walk was at a moment. */
  standAtMs(ms: number): void {
    const end = this.desk.result()?.figures.durationMs;
    if (end !== undefined) this.player.goTo(ms, end);
  }

  /** Why a cell came late, the longest stage first. */
  whyLate(late: LateCell): string {
    return lateReasons(late, this.desk.result()?.loads ?? [])
      .map(({ name, ms }) => `${name} ${timeText(ms)}`)
      .join(' · ');
  }

  /** Brings the middle of an object into view. */
  goToThing({ bounds: { min, max } }: { readonly bounds: Box3 }): void {
    this.goTo((min[0] + max[0]) / 2, (min[2] + max[2]) / 2);
  }

  /** Brings a spot into view. @param atMs when one is there on the walk */
  goTo(x: number, z: number, atMs?: number): void {
    if (atMs !== undefined) this.standAtMs(atMs);
    const size = (this.desk.grid()?.sizeMetres ?? 20) * 1.5;
    this.dispatch(cellsActions.spotChosen({ spot: [x, z] }));
    this.plate()?.frame({ min: [x - size, 0, z - size], max: [x + size, 4, z + size] });
  }
}
