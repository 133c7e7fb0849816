import { TitleCasePipe } from '@angular/common';
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
import { MatProgressBarModule } from '@angular/material/progress-bar';
import { Store } from '@ngrx/store';
import { recipeSpec } from '@stravel/core';
import type { Handler } from '../../desk/command';
import { Commands } from '../../desk/commands';
import { nudges } from '../../desk/level-commands';
import { toldKeys } from '../../desk/keys';
import { isMade } from '../../document/level/level-sections';
import { followLevel } from '../../level-desk/follow-level';

import type { PickItem } from '../../plate/pick-item';
import { LevelView } from '../../plate/level-view';
import { LevelDesk } from '../../level-desk/level-desk';
import type { PlanPointer, PlateDrawing, PlateMenu } from '../../plate/plate-drawing';
import type { MenuEntry } from '../../ui/context-menus';

import { countText } from '../../ui/amount';
import { Workspace } from '../../workspace';
import { SECTIONS_DESK } from './manifest';
import { RecipeForm } from './parts/recipe-form';
import { SectionsDesk } from './sections-desk';
import { sectionsActions } from './store/sections-store';
import { ColumnSection } from '../../level-desk/column-section';
import { levelDesk } from '../../level-desk/level-desk-view';
import { StrataLines } from '../../level-desk/strata-lines';
import { StrataList } from '../../level-desk/strata-list';
import { FirstVisit } from '../../guide/first-visit';

const SNAP_METRES = 0.25;

/** The Sections desk: parts of a level that a recipe makes, and the hand edits that stay. */
@Component({
  selector: 'sv-sections-page',
  imports: [ColumnSection, FirstVisit, LevelDesk, MatProgressBarModule, RecipeForm, StrataList, TitleCasePipe],
  providers: [levelDesk({ desk: 'sections', bottom: -0.5, storeyMetres: 3 }), SectionsDesk, StrataLines],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './sections-page.html',
  styleUrl: './sections-page.scss',
})
export class SectionsPage {
  readonly id = input<string>();
  /** A recipe to take in hand; a finding leads here. */
  readonly item = input<string>();
  private readonly store = inject(Store);
  private readonly commands = inject(Commands);
  private readonly workspace = inject(Workspace);
  readonly desk = inject(SectionsDesk);
  readonly openLevel = this.desk.openLevel;
  readonly sections = this.desk.sections;
  readonly state = this.desk.state;
  readonly actions = sectionsActions;
  readonly text = countText;
  private readonly levelDesk = viewChild(LevelDesk);
  private readonly plate = computed(() => this.levelDesk()?.plate());
  private readonly drag = signal<
    | { readonly from: readonly [number, number]; readonly by: readonly [number, number]; readonly item: PickItem }
    | undefined
  >(undefined);

  readonly strata = inject(StrataLines).objects;
  readonly view = inject(LevelView);
  readonly range = this.view.range;
  readonly chosen = computed((): PickItem | undefined => {
    const { wall } = this.state();
    const held = this.desk.held();
    this.desk.made();
    return wall === null || !held ? undefined : this.plate()?.item(`section:${held.recipe.id}`, 'block', wall);
  });
  readonly selection = computed((): ReadonlyMap<string, PickItem> => {
    const chosen = this.chosen();
    return new Map(chosen ? [[chosen.id, chosen]] : []);
  });
  readonly overlay = computed(() => {
    const drag = this.drag();
    return (drawing: PlateDrawing): void => {
      if (drag) this.drawDrag(drawing, drag);
    };
  });
  readonly chosenSize = computed(() => {
    const box = this.chosen()?.bounds;
    return box ? [0, 1, 2].map((k) => (box.max[k] - box.min[k]).toFixed(1)).join(' × ') : '';
  });

  readonly keys = toldKeys(SECTIONS_DESK);

  constructor() {
    followLevel({
      key: this.id,
      plate: this.plate,
      opened: () => this.dispatch(sectionsActions.levelOpened()),
      frame: () => this.frame(),
    });
    // After the level is followed: what is called from elsewhere is done in the level that it opens.
    const ofWall = (run: (wall: string) => unknown): Handler => ({
      run: () => run(this.state().wall ?? ''),
      enabled: () => this.state().wall !== null,
    });
    const nudge = (x: number, y: number, z: number): Handler =>
      ofWall((wall) => this.desk.moveWall(wall, [x * SNAP_METRES, y * SNAP_METRES, z * SNAP_METRES]));
    this.commands.handle(SECTIONS_DESK, {
      reseed: { run: () => this.desk.reseed(), enabled: this.openLevel.isThere },
      ...nudges(nudge),
      hide: ofWall((wall) => this.desk.hideWall(wall)),
      ...this.view.handlers(() => this.frame()),
      'let-go': { run: () => this.letGo() },
    });
    effect(() => {
      const item = this.item();
      if (item !== undefined && this.desk.recipes().some(({ recipe }) => recipe.id === item))
        untracked(() => this.dispatch(sectionsActions.recipeChosen({ id: item })));
    });
    // A section that comes to be after the level was opened has still to be brought into view.
    let shown = '';
    effect(() => {
      const section = this.desk.made()?.section;
      if (!section || section.recipe === shown) return;
      shown = section.recipe;
      setTimeout(() => this.frame());
    });
    effect(() => {
      const made = this.desk.made();
      const reach = this.desk.reached();
      this.workspace.footLeft.set([
        made?.section?.line ?? 'no section',
        reach > 1 ? `Changes affect ${reach} levels` : 'Changes affect this level only',
      ]);
      this.workspace.footRight.set([`${this.range().bottom} to ${this.range().top} m`]);
    });
  }

  dispatch(action: ReturnType<(typeof sectionsActions)[keyof typeof sectionsActions]>): void {
    this.store.dispatch(action);
  }

  /** The context menu of a place: what lies there is selected first. */
  readonly menuOf = ({ hits }: PlateMenu): readonly MenuEntry[] => {
    if (hits) this.modelPicked({ hits: hits() });
    return this.commands.entries(SECTIONS_DESK);
  };

  pointer(pointer: PlanPointer): void {
    const drag = this.drag();
    if (pointer.phase === 'down') {
      const hit = pointer.hits().find(({ stratum, id }) => isMade(stratum) && this.desk.canPin(id));
      this.dispatch(sectionsActions.wallChosen({ id: hit?.id ?? null }));
      if (hit) this.drag.set({ from: [pointer.x, pointer.z], by: [0, 0], item: hit });
      return;
    }
    if (!drag) return;
    const snap = (value: number): number =>
      pointer.event.altKey ? value : Math.round(value / SNAP_METRES) * SNAP_METRES;
    const by = [snap(pointer.x - drag.from[0]), snap(pointer.z - drag.from[1])] as const;
    if (pointer.phase === 'move') this.drag.set({ ...drag, by });
    else {
      this.drag.set(undefined);
      if (pointer.phase === 'up' && (by[0] !== 0 || by[1] !== 0))
        void this.desk.moveWall(drag.item.id, [by[0], 0, by[1]]);
    }
  }

  modelPicked({ hits }: { readonly hits: readonly PickItem[] }): void {
    const hit = hits.find(({ stratum, id }) => isMade(stratum) && this.desk.canPin(id));
    this.dispatch(sectionsActions.wallChosen({ id: hit?.id ?? null }));
  }

  private letGo(): void {
    const held = this.desk.held();
    if (held) this.sections.cancel(held.recipe.id);
    this.dispatch(sectionsActions.wallChosen({ id: null }));
  }

  /** Takes in a seed; an empty one goes back to what it was. */
  keepSeed(box: HTMLInputElement, before: string): void {
    const seed = box.value.trim();
    if (seed === '') box.value = before;
    else if (seed !== before) void this.desk.set('seed', seed);
  }

  private frame(): void {
    const held = this.desk.held();
    if (!held) {
      this.plate()?.frameStrata(this.openLevel.level()?.strata.map(({ stratum }) => stratum) ?? []);
      return;
    }
    // All that the recipe may fill, so that the view stays with every seed.
    this.plate()?.frame(recipeSpec(held.recipe).bounds(held.recipe));
  }

  private drawDrag(
    { context, colours, at, view }: PlateDrawing,
    { item, by }: NonNullable<ReturnType<typeof this.drag>>,
  ): void {
    if (view !== 'plan' || (by[0] === 0 && by[1] === 0)) return;
    const { min, max } = item.bounds;
    const corners = [
      at(min[0] + by[0], 0, min[2] + by[1]),
      at(max[0] + by[0], 0, min[2] + by[1]),
      at(max[0] + by[0], 0, max[2] + by[1]),
      at(min[0] + by[0], 0, max[2] + by[1]),
    ];
    context.strokeStyle = colours.brine;
    context.lineWidth = 2;
    context.setLineDash([5, 4]);
    context.beginPath();
    corners.forEach((corner, i) => {
      if (!corner) return;
      if (i === 0) context.moveTo(...corner);
      else context.lineTo(...corner);
    });
    context.closePath();
    context.stroke();
    context.setLineDash([]);
  }
}
