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
import { byKey, counted, laidId, type Piece } from '@stravel/core';
import type { Handler } from '../../desk/command';
import { Commands } from '../../desk/commands';
import { nudges } from '../../desk/level-commands';
import { DocumentRegistry } from '../../document/document-registry';
import { LevelSections, isMade } from '../../document/level/level-sections';
import type { HiddenGroups } from '../../document/unseen-groups';
import { Bakes } from '../../bakes/bakes';
import { BakeStateLine } from '../../level-desk/bake-state';
import { followLevel } from '../../level-desk/follow-level';
import { LevelCard } from '../../level-desk/level-card/level-card';
import { levelDesk } from '../../level-desk/level-desk-view';
import { Sheets } from '../../level-desk/sheets';
import { KitLibrary } from '../../plate/kit-library';
import { boxAround } from '../../plate/box-around';
import type { PickItem } from '../../plate/pick-item';
import { LevelView } from '../../plate/level-view';
import { LevelDesk } from '../../level-desk/level-desk';
import { ContextMenus, type MenuEntry } from '../../ui/context-menus';
import type { PlanPointer, PlateDrawing, PlateDrop, PlateMenu } from '../../plate/plate-drawing';
import { SharedEdits } from '../../reach/shared-edits';

import { Workspace } from '../../workspace';
import { AssembliesDesk } from './kinds/assembly/assemblies-desk';
import { LAYOUT_KINDS, itemsNamed } from './editing/item-edits';
import { LAYOUT_DESK } from './manifest';
import { LinksDesk } from './links/links-desk';
import { LayoutDesk } from './editing/layout-desk';
import { LayoutTools } from './tools/layout-tools';
import { ChecksMenu } from './context/checks-menu';
import { DensityResult } from './overview/density-result';
import { LayoutMeaning } from './parts/layout-meaning';
import { PIECE_TYPE, PieceStrip } from './parts/piece-strip';
import { ShownMore } from './parts/shown-more';
import { ContextEntries } from './selecting/context-entries';
import { SelectDesk } from './selecting/select-desk';
import { SelectionBar } from './selecting/selection-bar';
import { SnapOptions } from './tools/snap-options';
import { PlanOverlays } from './plan-overlays';
import { SelectionSide } from './selecting/selection-side';
import { isCopiedText } from './editing/copied-text';
import { SideColumn } from './strata/side-column';
import { TilesDesk } from './kinds/tile-floor/tiles-desk';
import { PlanSurface } from './plan/plan-surface';
import { layoutActions } from './store/layout-store';
import { FORMS_OF, FORM_COMMANDS, TOOL_COMMANDS, type LayoutTool } from './store/layout-tools';
import { PlanTools } from './tools/plan-tools';
import { LAYOUT_SERVICES } from './services';
import { PiecePictures } from '../../plate/piece-pictures';
import { selectedItems, type SelectedItems } from '../../plate/selected-items';
import { FirstVisit } from '../../guide/first-visit';

const TOOLS = TOOL_COMMANDS.map(({ id }) => id);
const FORMS = FORM_COMMANDS.map(({ id }) => id);

/** More items than this do not fit into an address. */
const MAX_ADDRESSED = 50;

/** The Layout desk: one level, its strata, what stands in them. */
@Component({
  selector: 'sv-layout-page',
  imports: [
    BakeStateLine,
    ChecksMenu,
    DensityResult,
    FirstVisit,
    LayoutMeaning,
    LayoutTools,
    LevelCard,
    LevelDesk,
    PieceStrip,
    SelectionBar,
    SelectionSide,
    ShownMore,
    SideColumn,
    SnapOptions,
  ],
  providers: [levelDesk({ desk: 'layout', bottom: -0.5, storeyMetres: 3 }), LAYOUT_SERVICES],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './layout-page.html',
  styleUrl: './layout-page.scss',
  host: {
    '(document:copy)': 'copy($event)',
    '(document:cut)': 'copy($event)',
    '(document:paste)': 'paste($event)',
  },
})
export class LayoutPage {
  readonly id = input<string>();
  /** An item to select and bring into view; a finding leads here. */
  readonly item = input<string>();
  /** Items to select, from a copied address. */
  readonly select = input<string>();
  /** 'piece' or 'blocks' and what they are of: all that use it are selected; a cost leads here. */
  readonly uses = input<string>();
  /** Stratum to stand on, from the address. */
  readonly stratum = input<string>();
  private readonly store = inject(Store);
  private readonly registry = inject(DocumentRegistry);
  readonly workspace = inject(Workspace);
  readonly desk = inject(LayoutDesk);
  readonly tiles = inject(TilesDesk);
  readonly assemblies = inject(AssembliesDesk);
  protected readonly piecePictures = inject(PiecePictures);
  private readonly overlays = inject(PlanOverlays);
  private readonly shared = inject(SharedEdits);
  readonly openLevel = this.desk.openLevel;
  readonly sections = inject(LevelSections);
  readonly kits = inject(KitLibrary);
  readonly state = this.desk.state;
  readonly actions = layoutActions;
  private readonly levelDesk = viewChild(LevelDesk);
  private readonly plate = computed(() => this.levelDesk()?.plate());

  readonly tools = inject(PlanTools);
  readonly planNote = this.tools.cursorNote;
  private readonly links = inject(LinksDesk);
  private readonly sheets = inject(Sheets);
  private readonly selecting = inject(SelectDesk);
  readonly bakes = inject(Bakes);
  readonly menus = inject(ContextMenus);
  readonly entries = inject(ContextEntries);
  readonly menuOf = (menu: PlateMenu): readonly MenuEntry[] => this.entries.ofPlate(menu);
  readonly sightState = computed(
    () => this.bakes.byLevel()[this.openLevel.level()?.id ?? '']?.sight.state ?? 'unknown',
  );
  /** Open while a piece is to be chosen. */
  readonly isStripOpen = signal(false);
  readonly kitRecords = computed(() => Object.values(this.desk.tables().kit));
  readonly cardTitle = computed(() => {
    const count = this.desk.selected().length;
    return count > 0 ? `${count} selected` : 'Level';
  });
  private readonly surface = inject(PlanSurface);

  readonly hidden = computed(() => {
    const { soloed } = this.state();
    const alone = this.openLevel
      .strata()
      .find(({ id, tables: { group: groups } }) => id === soloed || groups.has(soloed));
    const hidden = new Set(
      alone ? this.openLevel.strata().flatMap(({ id }) => (id === alone.id ? [] : [id])) : this.state().hidden,
    );
    return new Set([...hidden, ...this.sections.hiddenWith(hidden)]);
  });
  readonly hiddenGroups = computed((): HiddenGroups => {
    const { soloed, hiddenGroups } = this.state();
    const isGroup = this.openLevel.strata().some(({ tables: { group: groups } }) => groups.has(soloed));
    return { hidden: new Set(hiddenGroups), alone: isGroup ? soloed : '' };
  });
  readonly view = inject(LevelView);
  readonly range = this.view.range;
  readonly selection = computed((): SelectedItems => {
    this.registry.contentVersion();
    const plate = this.plate();
    // They are looked up later, in these.
    plate?.strata();
    plate?.pieces();
    return selectedItems(this.state().selection, ({ stratum, kind, id }) => plate?.item(stratum, kind, id));
  });
  readonly overlay = computed(() => {
    this.surface.drawing();
    this.desk.one();
    const draw = this.overlays.draw();
    return (drawing: PlateDrawing): void => {
      draw(drawing);
      this.tools.draw(drawing);
    };
  });
  readonly used = computed(() => {
    this.registry.contentVersion();
    const used = new Map<string, number>();
    for (const {
      tables: { placement: placements, assembly: assemblyUses },
    } of this.openLevel.strata()) {
      for (const { assembly } of assemblyUses.values()) used.set(assembly, (used.get(assembly) ?? 0) + 1);
      for (let slot = 0; slot < placements.slotCount; slot++) {
        if (placements.idAt(slot) !== undefined)
          used.set(placements.pieceAt(slot), (used.get(placements.pieceAt(slot)) ?? 0) + 1);
      }
    }
    return used;
  });
  /** Whether nothing stands in the level at all. */
  readonly isBare = computed(() => {
    this.registry.contentVersion();
    return !this.openLevel.isLoading() && this.openLevel.strata().every(({ size }) => size === 0);
  });

  constructor() {
    effect((dispose) => {
      this.desk.plate.set(this.plate());
      dispose(() => this.desk.plate.set(undefined));
    });
    followLevel({
      key: this.id,
      plate: this.plate,
      opened: () => this.store.dispatch(layoutActions.levelOpened()),
      frame: () => this.frameLevel(),
      place: (): Readonly<Record<string, string>> => {
        const ids = this.state().selection.map(({ id }) => id);
        return ids.length === 0 || ids.length > MAX_ADDRESSED ? {} : { select: ids.join(',') };
      },
    });
    // After the level is followed: what is called from elsewhere is done in the level that it opens.
    const choose = (tool: LayoutTool): Handler => ({
      run: () => this.dispatch(layoutActions.toolChosen({ tool })),
      enabled: () => this.openLevel.level() !== undefined,
    });
    const ofSelection = (run: () => unknown): Handler => ({ run, enabled: () => this.state().selection.length > 0 });
    // The cursor of the plan, where it is worked by keys; else what is selected.
    const nudge = (x: number, y: number, z: number): Handler => ({
      run: () => {
        const step = this.state().snapMetres || 0.1;
        return (y === 0 && this.tools.step(x * step, z * step)) || this.desk.move([x * step, y * step, z * step]);
      },
      enabled: () => this.state().selection.length > 0 || this.tools.hasCursor(),
    });
    inject(Commands).handle(LAYOUT_DESK, {
      ...byKey(TOOLS, choose),
      ...byKey(FORMS, (id): Handler => {
        const forms = FORMS_OF[id];
        const next = (): LayoutTool => forms[(forms.indexOf(this.state().tool) + 1) % forms.length];
        return { ...choose(forms[0]), run: () => this.dispatch(layoutActions.toolChosen({ tool: next() })) };
      }),
      finish: { run: () => this.tools.finish(isOnPlan()) },
      ...nudges(nudge),
      'turn-left': ofSelection(() => this.desk.turn(15)),
      'turn-right': ofSelection(() => this.desk.turn(-15)),
      // Heard without a selection too: the browser would keep the page as a bookmark.
      duplicate: { run: () => this.state().selection.length > 0 && this.desk.duplicate() },
      'select-all': { run: () => this.selecting.all() },
      invert: { run: () => this.selecting.invert() },
      delete: ofSelection(() => this.desk.delete()),
      ...this.view.handlers(() => this.frame()),
      'let-go': { run: () => this.letGo() },
    });
    effect(() => {
      // The tool asks for a piece: they are all shown until one is in hand.
      const { tool } = this.state();
      untracked(() => this.isStripOpen.set(tool === 'piece'));
    });
    effect(() => {
      const select = this.select();
      if (select === undefined || !this.plate() || this.openLevel.isLoading()) return;
      untracked(() => this.desk.select(itemsNamed(this.openLevel.strata(), new Set(select.split(',')))));
    });
    effect(() => {
      const uses = this.uses();
      if (uses === undefined || !this.plate() || this.openLevel.isLoading()) return;
      // Once the plate has the level, too.
      setTimeout(() => {
        this.selecting.uses(uses);
        this.frame();
      });
    });
    effect(() => {
      const item = this.item();
      if (item === undefined || !this.plate() || this.openLevel.isLoading()) return;
      setTimeout(() => this.goTo(item));
    });
    effect(() => {
      const stratum = this.stratum();
      if (stratum === undefined || !this.plate() || this.openLevel.isLoading()) return;
      this.dispatch(layoutActions.stratumActivated({ id: stratum }));
      setTimeout(() => this.plate()?.frameStrata([stratum]));
    });
    effect(() => {
      const count = this.openLevel.strata().reduce((sum, { size }) => sum + size, 0);
      this.registry.contentVersion();
      const isAssembly = this.openLevel.isAssembly();
      const own = isAssembly ? this.shared.levelsOf(this.openLevel.level()?.id ?? '').length : 1;
      const reach = Math.max(
        own,
        ...this.desk
          .selected()
          .map(({ stratum }) => (this.shared.belongs(stratum) === 'one' ? 1 : this.shared.levelsOf(stratum).length)),
      );
      this.workspace.footLeft.set([
        `${this.desk.selected().length} selected of ${count}`,
        isAssembly || reach > 1 ? `Changes affect ${counted(reach, 'level')}` : 'Changes affect this level only',
      ]);
      const { bottom, top } = this.range();
      this.workspace.footRight.set([`storey ${this.view.storeyOf(bottom)}, ${bottom} to ${top} m`]);
    });
  }

  dispatch(action: ReturnType<(typeof layoutActions)[keyof typeof layoutActions]>): void {
    this.store.dispatch(action);
  }

  pointer(pointer: PlanPointer): void {
    if (this.links.pointing() === undefined) this.tools.pointer(pointer);
    else if (pointer.phase === 'up') this.links.pointAt(pointer.hits().at(0));
  }

  modelPicked({ hits, event }: { hits: PickItem[]; event: PointerEvent }): void {
    const hit = hits.find((item) => !isMade(item.stratum) && !this.desk.isItemLocked(item));
    if (this.links.pointAt(hit)) return;
    this.desk.pick(hit, event.shiftKey);
  }

  /** Numbers that are typed on the plan are lengths. */
  planKey(event: KeyboardEvent): void {
    if (event.ctrlKey || event.altKey || event.metaKey || !isOnPlan() || !this.tools.type(event.key)) return;
    event.preventDefault();
    event.stopPropagation();
  }

  copy(event: ClipboardEvent): void {
    if (isTyping(event) || document.getSelection()?.toString()) return;
    const text = this.desk.copy();
    if (text === undefined || !event.clipboardData) return;
    event.clipboardData.setData('text/plain', text);
    event.preventDefault();
    if (event.type === 'cut') void this.desk.delete();
  }

  paste(event: ClipboardEvent): void {
    const text = event.clipboardData?.getData('text/plain') ?? '';
    if (isTyping(event) || !isCopiedText(text)) return;
    event.preventDefault();
    void this.desk.paste(text);
  }

  /** Places a piece that was carried to the plate where it is let go. */
  drop({ data, pointer }: PlateDrop): void {
    const id = data.getData(PIECE_TYPE);
    if (id === '') return;
    this.dispatch(layoutActions.pieceChosen({ id }));
    for (const phase of ['down', 'up'] as const) this.tools.pointer({ ...pointer, phase });
    this.dispatch(layoutActions.toolChosen({ tool: 'select' }));
  }

  bakeSight(): void {
    const level = this.openLevel.level();
    if (level && !this.openLevel.isAssembly()) void this.bakes.bake(level.id);
  }

  private letGo(): void {
    if (this.sheets.shown()) {
      this.sheets.close();
      return;
    }
    if (this.links.stopPointing() || this.tools.cancel()) return;
    this.dispatch(
      this.state().tool === 'select' ? layoutActions.selectionDropped() : layoutActions.toolChosen({ tool: 'select' }),
    );
  }

  private goTo(id: string): void {
    const document = this.openLevel.strata().find((one) => LAYOUT_KINDS.some((kind) => one.item(kind, id)));
    const kind = LAYOUT_KINDS.find((one) => document?.item(one, id));
    if (!document || !kind) {
      // Things of an assembly are found by the use that brings them, blocks of a wall by the wall.
      const use = this.openLevel
        .strata()
        .flatMap(({ tables: { assembly: assemblyUses, wall: walls } }) => [...assemblyUses.keys(), ...walls.keys()])
        .find((one) => id.startsWith(laidId(one, '')));
      if (use !== undefined) this.goTo(use);
      return;
    }
    this.dispatch(layoutActions.stratumActivated({ id: document.id }));
    this.desk.select([{ stratum: document.id, kind, id }]);
    const item = this.plate()?.item(document.id, kind, id);
    if (!item) return;
    this.view.showStoreyOf(item.bounds.min[1]);
    this.plate()?.frame(item.bounds);
  }

  protected drawPieces(pieces: readonly Piece[]): void {
    this.piecePictures.want(pieces, (mesh, bounds) => this.plate()?.pictureOfPiece(mesh, bounds));
  }

  private frame(): void {
    const box = boxAround([...this.selection().values()].map(({ bounds }) => bounds));
    if (box) this.plate()?.frame(box);
    else this.frameLevel();
  }

  /** The level's own strata in view; what it shares may be much wider. */
  private frameLevel(): void {
    const own = (this.openLevel.level()?.strata ?? [])
      .map(({ stratum }) => stratum)
      .filter((id) => this.desk.tables().stratum[id]?.owner !== null);
    this.plate()?.frameStrata(own);
  }
}

/** Whether an event belongs to something that is typed into, or to a dialog or menu. */
function isTyping(event: Event): boolean {
  return (
    event.target instanceof Element &&
    event.target.closest('input, textarea, select, .mat-mdc-dialog-container, [role=menu]') !== null
  );
}

/** Whether the plan has the focus. */
function isOnPlan(): boolean {
  return document.activeElement?.getAttribute('role') === 'application';
}
