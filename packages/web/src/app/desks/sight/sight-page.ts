import { counted } from '@stravel/core';
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
import type { PlanPoint, Vector3 } from '@stravel/core';
import { Commands } from '../../desk/commands';
import { toldKeys } from '../../desk/keys';
import { DocumentRegistry } from '../../document/document-registry';

import { followLevel } from '../../level-desk/follow-level';

import { drawDivider } from '../../plate/kinds/divider';
import { LevelView } from '../../plate/level-view';
import { LevelDesk } from '../../level-desk/level-desk';
import type { PlanPointer, PlateDrawing, PlateMenu } from '../../plate/plate-drawing';
import type { MenuEntry } from '../../ui/context-menus';
import { Session } from '../../session';
import { countText } from '../../ui/amount';
import { BakeStateLine } from '../../level-desk/bake-state';
import { ColumnSection } from '../../level-desk/column-section';
import { CostLegend } from '../../level-desk/cost-legend';
import { levelDesk } from '../../level-desk/level-desk-view';
import { StrataLines } from '../../level-desk/strata-lines';
import { StrataList } from '../../level-desk/strata-list';
import { ToolButton } from '../../ui/tool-button';
import { Workspace } from '../../workspace';
import { FromHere, type FromHereRow } from './parts/from-here';
import { WayOutCard } from './parts/way-out-card';
import { WorstPockets } from './parts/worst-pockets';
import { SIGHT_DESK } from './manifest';
import { SightDesk } from './sight-desk';
import { drawSight, outlinePocket, paintPockets } from './sight-drawing';
import { sightActions } from './store/sight-store';
import { FirstVisit } from '../../guide/first-visit';

const SNAP_METRES = 0.25;

/** The Sight desk: what can be seen from where, and what it costs. */
@Component({
  selector: 'sv-sight-page',
  imports: [
    BakeStateLine,
    ColumnSection,
    CostLegend,
    FirstVisit,
    FromHere,
    LevelDesk,
    StrataList,
    ToolButton,
    WayOutCard,
    WorstPockets,
  ],
  providers: [levelDesk({ desk: 'sight', bottom: -0.5, storeyMetres: 3 }), SightDesk, StrataLines],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './sight-page.html',
  styleUrl: './sight-page.scss',
})
export class SightPage {
  readonly id = input<string>();
  /** Where to stand, 'x,y,z' in metres; a finding or a figure leads here. */
  readonly at = input<string>();
  private readonly store = inject(Store);
  private readonly commands = inject(Commands);
  private readonly registry = inject(DocumentRegistry);
  readonly session = inject(Session);
  readonly workspace = inject(Workspace);
  readonly desk = inject(SightDesk);
  readonly openLevel = this.desk.openLevel;
  readonly state = this.desk.state;
  readonly actions = sightActions;
  readonly text = countText;
  private readonly levelDesk = viewChild(LevelDesk);
  private readonly plate = computed(() => this.levelDesk()?.plate());
  private readonly line = signal<readonly [PlanPoint, PlanPoint] | undefined>(undefined);

  readonly strata = inject(StrataLines).objects;
  /** Pocket of the row under the pointer. */
  readonly hovered = signal(-1);
  readonly view = inject(LevelView);
  readonly range = this.view.range;
  readonly overlay = computed(() => {
    const paint = this.desk.paint();
    const { stand } = this.state();
    const { bottom, top } = this.range();
    const line = this.line();
    const hovered = this.hovered();
    return (drawing: PlateDrawing): void => {
      if (paint) drawSight(drawing, paint, stand);
      if (paint && hovered >= 0) outlinePocket(drawing, paint, hovered);
      if (line) drawDivider(drawing, line[0], line[1], bottom, top);
    };
  });
  readonly pocketOverlay = computed(() => {
    const paint = this.desk.paint();
    return (drawing: PlateDrawing): void => {
      if (paint) paintPockets(drawing, paint);
    };
  });
  readonly fromHere = computed((): { where: string; rows: FromHereRow[]; limit: string } | undefined => {
    const baked = this.desk.baked();
    const standing = this.desk.standing();
    const { stand } = this.state();
    if (!baked || standing < 0 || !stand) return undefined;
    const { sight, figures } = baked;
    const seen = sight.visible[standing].length;
    const device = this.session.device();
    const [triangles, calls] = [figures.pocketTriangles[standing], figures.pocketDrawCalls[standing]];
    const [limit, mostCalls] = [device?.budget.triangles, device?.budget.drawCalls];
    const rows: FromHereRow[] = [
      { name: 'pockets reached', value: sight.figures.reachedPockets, share: 1, tone: 'stone' },
      {
        name: 'visible from here',
        value: seen,
        share: seen / Math.max(1, sight.figures.reachedPockets),
        tone: 'brine',
      },
      {
        name: 'not visible from here',
        value: sight.figures.reachedPockets - seen,
        share: 1 - seen / Math.max(1, sight.figures.reachedPockets),
        tone: 'stone',
      },
      { name: 'objects in the level', value: figures.things, share: 1, tone: 'stone' },
      {
        name: 'objects visible',
        value: figures.pocketThings[standing],
        share: figures.pocketThings[standing] / Math.max(1, figures.things),
        tone: 'brine',
      },
      {
        name: 'triangles in 360°',
        value: triangles,
        share: triangles / (limit ?? Math.max(1, triangles)),
        tone: 'kiln',
        hasLimit: limit !== undefined,
      },
      {
        name: 'draw calls',
        value: calls,
        share: calls / (mostCalls ?? Math.max(1, calls)),
        tone: 'kiln',
        hasLimit: mostCalls !== undefined,
      },
    ];
    // What is over comes first.
    rows.unshift(...rows.splice(5, 2));
    return {
      where: `pocket ${standing + 1} · ${stand.map((v) => v.toFixed(1)).join(', ')}`,
      rows,
      limit: limit === undefined ? '' : `limit ${countText(limit)}`,
    };
  });
  readonly comparison = computed(() => {
    const { before } = this.state();
    const baked = this.desk.baked();
    if (!before || !baked || before.level !== baked.level || this.desk.bakes.progress()) return [];
    const { figures } = baked.sight;
    return [
      { name: 'worst pocket', before: before.triangles, after: baked.figures.worst.at(0)?.triangles ?? 0 },
      { name: 'draw calls', before: before.drawCalls, after: baked.figures.worstDrawCalls?.drawCalls ?? 0 },
      { name: 'pockets', before: before.pockets, after: figures.reachedPockets },
      { name: 'visible pairs', before: before.pairs, after: figures.visiblePairs },
    ];
  });
  readonly dividers = computed(() => {
    this.registry.contentVersion();
    return this.openLevel.strata().flatMap((document) =>
      [...document.tables.divider.values()].map((divider) => ({
        stratum: document.id,
        divider,
        length: Math.hypot(divider.to[0] - divider.from[0], divider.to[1] - divider.from[1]),
      })),
    );
  });

  readonly keys = toldKeys(SIGHT_DESK);

  constructor() {
    followLevel({
      key: this.id,
      plate: this.plate,
      opened: () => this.store.dispatch(sightActions.levelOpened()),
      frame: () => this.frameLevel(),
      place: (): Readonly<Record<string, string>> => {
        const { stand } = this.state();
        return stand ? { at: stand.map((value) => value.toFixed(2)).join(',') } : {};
      },
    });
    // After the level is followed: what is called from elsewhere is done in the level that it opens.
    this.commands.handle(SIGHT_DESK, {
      stand: { run: () => this.dispatch(sightActions.toolChosen({ tool: 'stand' })) },
      divider: {
        run: () => this.dispatch(sightActions.toolChosen({ tool: 'divider' })),
        enabled: () => this.openLevel.level() !== undefined,
      },
      bake: { run: () => this.desk.bake(), enabled: this.openLevel.isThere },
      ...this.view.handlers(() => this.frameLevel()),
      'let-go': { run: () => this.letGo() },
    });
    effect(() => {
      const at = this.at()?.split(',').map(Number);
      if (!this.desk.baked() || at?.length !== 3 || !at.every(Number.isFinite)) return;
      untracked(() => this.goTo([at[0], at[1], at[2]]));
    });
    effect(() => {
      const baked = this.desk.baked();
      const closed = !baked
        ? 'Not baked'
        : baked.sight.closed
          ? 'Level is closed'
          : baked.sight.wayOut
            ? 'Open to the outside'
            : 'Nothing blocks the view here';
      const pockets = baked
        ? [
            `${counted(baked.sight.figures.reachedPockets, 'pocket')}, ${counted(baked.sight.figures.openings, 'opening')}`,
          ]
        : [];
      this.workspace.footLeft.set([
        closed,
        ...pockets,
        ...(this.desk.sharedStrata() > 0 ? ['Counts shared strata'] : []),
      ]);
      this.workspace.footRight.set([`${this.range().bottom} to ${this.range().top} m`]);
    });
  }

  paintBy(by: string): void {
    this.dispatch(sightActions.paintChosen({ by: by === 'drawCalls' ? 'drawCalls' : 'triangles' }));
  }

  dispatch(action: ReturnType<(typeof sightActions)[keyof typeof sightActions]>): void {
    this.store.dispatch(action);
  }

  /** The context menu of a place: what a click there shows is shown first. */
  readonly menuOf = ({ pointer }: PlateMenu): readonly MenuEntry[] => {
    if (pointer && this.state().tool === 'stand') this.pointer(pointer);
    return this.commands.entries(SIGHT_DESK);
  };

  pointer(pointer: PlanPointer): void {
    if (this.state().tool === 'stand') {
      if (pointer.phase === 'up') this.desk.standAt(pointer.x, pointer.z);
      return;
    }
    const free = pointer.event.altKey;
    const snap = (value: number): number => (free ? value : Math.round(value / SNAP_METRES) * SNAP_METRES);
    const at: PlanPoint = [snap(pointer.x), snap(pointer.z)];
    const line = this.line();
    if (pointer.phase === 'down') this.line.set([at, at]);
    else if (pointer.phase === 'move' && line) this.line.set([line[0], at]);
    else if (pointer.phase === 'up' && line) {
      this.line.set(undefined);
      if (Math.hypot(at[0] - line[0][0], at[1] - line[0][1]) > 0.05) void this.desk.addDivider(line[0], at);
    } else if (pointer.phase === 'cancel') this.line.set(undefined);
  }

  /** Stands at a point, with the storey shown that it lies in. */
  goTo(at: Vector3): void {
    const { bottom, top } = this.range();
    if (at[1] < bottom || at[1] >= top) this.view.showStoreyOf(at[1]);
    this.dispatch(sightActions.stoodAt({ at }));
  }

  private letGo(): void {
    this.line.set(undefined);
    this.dispatch(sightActions.toolChosen({ tool: 'stand' }));
    this.desk.bakes.cancel();
  }

  private frameLevel(): void {
    this.plate()?.frameStrata(this.desk.ownStrata());
  }
}
