import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, viewChild } from '@angular/core';
import { Store } from '@ngrx/store';
import { MARKER_KINDS, type Block, type Divider, type ItemKind, type Marker, type Placement } from '@stravel/core';
import { bakesFeature } from '../../bakes/bakes-store';
import { DocumentRegistry } from '../../document/document-registry';
import { LevelSections, isSection } from '../../document/level/level-sections';
import type { HiddenGroups } from '../../document/unseen-groups';
import { followLevel } from '../../plate/follow-level';
import { KitLibrary } from '../../plate/kit-library';
import { PlateControls } from '../../plate/plate-controls';
import { PlateView, type PlanPointer, type PlateDrawing } from '../../plate/plate-view';
import type { PickItem } from '../../plate/pick-index';
import { SharedEdits } from '../../reach/shared-edits';
import { Session } from '../../session';
import { NumberField } from '../../ui/number-field';
import { Workspace } from '../../workspace';
import { LAYOUT_KINDS, type LayoutItem } from './item-edits';
import { LayoutDesk } from './layout-desk';
import { ItemCard } from './parts/item-card';
import { ItemList, type ItemLine } from './parts/item-list';
import { PieceStrip } from './parts/piece-strip';
import { GroupTree } from './groups/group-tree';
import { GroupsDesk } from './groups/groups-desk';
import { PlanTool } from './plan-tool';
import { StrataDesk } from './strata/strata-desk';
import { StrataStack, type StackRow, type StratumDeed } from './strata/strata-stack';
import { stackRows } from './strata/stack-rows';
import { LAYOUT_TOOLS, layoutActions, type ItemRef, type LayoutTool } from './store/layout-store';

const TOOL_KEYS: Readonly<Record<string, LayoutTool>> = { s: 'select', b: 'box', w: 'wedge', p: 'prism', l: 'piece', m: 'marker' };
/** Things whose outlines follow a drag. */
const MOST_DRAGGED_OUTLINES = 300;
const SNAPS = [0, 0.1, 0.25, 0.5, 1, 2, 4];

/** The Layout desk: one level, its strata, what stands in them. */
@Component({
  selector: 'sv-layout-page',
  imports: [GroupTree, ItemCard, ItemList, NumberField, PieceStrip, PlateControls, PlateView, StrataStack],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './layout-page.html',
  styleUrl: './layout-page.scss',
  host: { '(document:keydown)': 'key($event)' },
})
export class LayoutPage {
  readonly id = input<string>();
  /** An item to select and bring into view; a finding leads here. */
  readonly item = input<string>();
  /** Stratum to stand on, from the address. */
  readonly stratum = input<string>();
  private readonly store = inject(Store);
  private readonly registry = inject(DocumentRegistry);
  private readonly figures = this.store.selectSignal(bakesFeature.selectByLevel);
  readonly session = inject(Session);
  readonly workspace = inject(Workspace);
  readonly desk = inject(LayoutDesk);
  readonly strata = inject(StrataDesk);
  readonly groups = inject(GroupsDesk);
  private readonly shared = inject(SharedEdits);
  readonly openLevel = this.desk.openLevel;
  readonly sections = inject(LevelSections);
  readonly kits = inject(KitLibrary);
  readonly state = this.desk.state;
  readonly actions = layoutActions;
  readonly tools = LAYOUT_TOOLS;
  readonly snaps = SNAPS;
  readonly markerKinds = MARKER_KINDS;
  readonly cursor = signal('');
  private readonly drawn = signal(0);
  private readonly plate = viewChild(PlateView);

  readonly tool = new PlanTool({
    state: () => this.state(),
    floor: () => Math.round((this.state().bottom + 0.5) * 1000) / 1000,
    isLocked: (item) => isSection(item.stratum) || this.desk.isItemLocked(item),
    frame: () => this.desk.frame(),
    outlines: () => [...this.selection().values()].slice(0, MOST_DRAGGED_OUTLINES).flatMap((item) => this.plate()?.facesOf(item) ?? []),
    within: (x0, z0, x1, z1) => this.plate()?.itemsWithin(x0, z0, x1, z1) ?? [],
    select: (items) => this.desk.select(items),
    move: (by) => void this.desk.move(by),
    stretch: (to) => void this.desk.stretch(to),
    turnTo: (yaw) => {
      const frame = this.desk.frame();
      if (frame) void this.desk.change(frame.item, { field: 'turn', value: yaw, axis: 0 });
    },
    add: (kind: ItemKind, item: LayoutItem, label) => void this.desk.add(kind, item, label),
    refuse: (reason) => this.desk.refuse(reason),
    redraw: () => this.drawn.update((n) => n + 1),
  });

  readonly hidden = computed(() => {
    const { soloed } = this.state();
    const alone = this.openLevel.strata().find(({ id, groups }) => id === soloed || groups.has(soloed));
    const hidden = new Set(alone ? this.openLevel.strata().flatMap(({ id }) => (id === alone.id ? [] : [id])) : this.state().hidden);
    return new Set([...hidden, ...this.sections.hiddenWith(hidden)]);
  });
  readonly hiddenGroups = computed((): HiddenGroups => {
    const { soloed, hiddenGroups } = this.state();
    const isGroup = this.openLevel.strata().some(({ groups }) => groups.has(soloed));
    return { hidden: new Set(hiddenGroups), alone: isGroup ? soloed : '' };
  });
  readonly templateNames = computed(() => this.groups.templates().map(({ name }) => name));
  /** Where changes of the shared stratum that one works on belong, once it was said. */
  readonly belongs = computed(() => {
    const stratum = this.workedOn();
    const belongs = stratum === undefined ? undefined : this.shared.belongs(stratum);
    if (stratum === undefined || belongs === undefined) return undefined;
    const levels = this.shared.levelsOf(stratum);
    const name = this.desk.tables().stratum[stratum].name;
    const names = levels.map((id) => this.desk.tables().level[id].name).join(', ');
    const says = belongs === 'all' ? `changes reach all ${levels.length}` : 'changes stay here';
    return { says, title: `Changes of ${name} ${belongs === 'all' ? `reach ${names}` : 'are kept as patches of this level'}. Click for the other.` };
  });
  private readonly workedOn = computed(() => this.state().selection.at(0)?.stratum ?? this.desk.activeStratum()?.id);
  readonly range = computed(() => ({ bottom: this.state().bottom, top: this.state().bottom + this.state().storeyMetres }));
  readonly selection = computed((): ReadonlyMap<string, PickItem> => {
    this.registry.contentVersion();
    const plate = this.plate();
    return new Map(
      this.state().selection.flatMap(({ stratum, kind, id }) => {
        const item = plate?.item(stratum, kind, id);
        return item ? [[id, item] as const] : [];
      }),
    );
  });
  readonly overlay = computed(() => {
    this.drawn();
    this.desk.frame();
    return (drawing: PlateDrawing): void => this.tool.draw(drawing);
  });
  readonly stack = computed((): StackRow[] => {
    this.registry.contentVersion();
    const level = this.openLevel.level();
    if (!level) return [];
    const patchCounts = new Map(this.openLevel.shared().map(({ id, patches }) => [id, [...patches.values()].filter((patch) => patch.level === level.id).length]));
    return stackRows(level.strata, {
      records: this.desk.tables().stratum,
      documents: new Map(this.openLevel.strata().map((document) => [document.id, document])),
      figures: this.figures()[level.id]?.figures.summary?.strata ?? [],
      reach: this.desk.reach(),
      patches: (stratum) => patchCounts.get(stratum) ?? 0,
      state: this.state(),
      active: this.desk.activeStratum()?.id,
    });
  });
  readonly one = computed(() => (this.desk.selected().length === 1 ? this.desk.selected()[0] : undefined));
  readonly onePiece = computed(() => {
    const one = this.one();
    return one?.kind === 'placement' ? this.openLevel.pieces()[(one.item as Placement).piece] : undefined;
  });
  readonly pieces = computed(() => Object.values(this.openLevel.pieces()).sort((a, b) => (a.name < b.name ? -1 : 1)));
  readonly used = computed(() => {
    this.registry.contentVersion();
    const used = new Map<string, number>();
    for (const { placements } of this.openLevel.strata()) {
      for (let slot = 0; slot < placements.slotCount; slot++) {
        if (placements.idAt(slot) !== undefined) used.set(placements.pieceAt(slot), (used.get(placements.pieceAt(slot)) ?? 0) + 1);
      }
    }
    return used;
  });
  readonly listed = computed((): readonly ItemRef[] => this.listItems());
  readonly selectedIds = computed((): ReadonlySet<string> => new Set(this.state().selection.map(({ id }) => id)));
  /** Reads an item anew for each row that is in view; a new function after every change. */
  readonly describe = computed(() => {
    this.registry.contentVersion();
    return (item: ItemRef): ItemLine => this.describeItem(item);
  });

  constructor() {
    followLevel(
      'layout',
      this.id,
      this.plate,
      () => this.store.dispatch(layoutActions.levelOpened({ bottom: -0.5 })),
      () => this.frameLevel(),
    );
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
      const reach = Math.max(1, ...this.desk.selected().map(({ stratum }) => (this.shared.belongs(stratum) === 'one' ? 1 : this.shared.levelsOf(stratum).length)));
      this.workspace.footLeft.set([`${this.desk.selected().length} selected of ${count}`, reach > 1 ? `reach: ${reach} levels` : 'reach: this level only']);
      this.workspace.footRight.set([`${this.range().bottom} to ${this.range().top} m`, this.cursor()]);
    });
  }

  dispatch(action: ReturnType<(typeof layoutActions)[keyof typeof layoutActions]>): void {
    this.store.dispatch(action);
  }

  flipBelongs(): void {
    const stratum = this.workedOn();
    if (stratum !== undefined) this.shared.choose(stratum, this.shared.belongs(stratum) === 'all' ? 'one' : 'all');
  }

  stratumAsked(id: string, deed: StratumDeed): void {
    const switchedOff = this.openLevel.level()?.strata.find(({ stratum }) => stratum === id)?.switchedOff === true;
    const deeds: Record<StratumDeed, () => unknown> = {
      rename: () => this.strata.rename(id),
      up: () => this.strata.move(id, 1),
      down: () => this.strata.move(id, -1),
      solo: () => this.dispatch(layoutActions.soloed({ id })),
      switch: () => this.strata.switchOff(id, !switchedOff),
      patches: () => this.strata.openPatches(id),
      'part ways': () => this.strata.partWays(id),
      'take out': () => this.strata.takeOut(id, false),
      delete: () => this.strata.takeOut(id, true),
    };
    deeds[deed]();
  }

  pointer(pointer: PlanPointer): void {
    this.cursor.set(`${pointer.x.toFixed(1)}, ${pointer.z.toFixed(1)}`);
    this.tool.pointer(pointer);
  }

  modelPicked({ hits, event }: { hits: PickItem[]; event: PointerEvent }): void {
    const hit = hits.find((item) => !isSection(item.stratum) && !this.desk.isItemLocked(item));
    this.pick(hit, event.shiftKey);
  }

  pick(item: ItemRef | undefined, add: boolean): void {
    const { selection } = this.state();
    if (!item) this.desk.select(add ? selection : []);
    else if (!add) this.desk.select([item]);
    else this.desk.select(selection.some(({ id }) => id === item.id) ? selection.filter(({ id }) => id !== item.id) : [...selection, item]);
  }

  key(event: KeyboardEvent): void {
    if ((event.target as HTMLElement).closest('input, textarea, select, .mat-mdc-dialog-container, [role=menu]')) return;
    const command = event.ctrlKey || event.metaKey;
    if (command && event.key.toLowerCase() === 'd') void this.desk.duplicate();
    else if (command || event.altKey) return;
    else if (!this.keyAlone(event.key)) return;
    event.preventDefault();
  }

  private keyAlone(key: string): boolean {
    const step = this.state().snapMetres || 0.1;
    const nudges: Record<string, readonly [number, number, number]> = {
      ArrowLeft: [-step, 0, 0],
      ArrowRight: [step, 0, 0],
      ArrowUp: [0, 0, -step],
      ArrowDown: [0, 0, step],
      PageUp: [0, step, 0],
      PageDown: [0, -step, 0],
    };
    const tool = TOOL_KEYS[key.toLowerCase()];
    if (tool) this.dispatch(layoutActions.toolChosen({ tool }));
    else if (nudges[key] && this.state().selection.length > 0) void this.desk.move(nudges[key]);
    else if (key === 'q' || key === 'e') void this.desk.turn(key === 'q' ? 15 : -15);
    else if (key === 'Delete' || key === 'Backspace') void this.desk.delete();
    else if (key === '[' || key === ']') this.dispatch(layoutActions.storeyStepped({ by: key === ']' ? 1 : -1 }));
    else if (key === 'f') this.frame();
    else if (key === 'Enter') this.tool.finishOutline();
    else if (key === 'Escape') {
      if (!this.tool.cancel()) this.dispatch(this.state().tool === 'select' ? layoutActions.selectionDropped() : layoutActions.toolChosen({ tool: 'select' }));
    } else return false;
    return true;
  }

  private goTo(id: string): void {
    const document = this.openLevel.strata().find((one) => LAYOUT_KINDS.some((kind) => one.item(kind, id)));
    const kind = LAYOUT_KINDS.find((one) => document?.item(one, id));
    if (!document || !kind) return;
    this.dispatch(layoutActions.stratumActivated({ id: document.id }));
    this.desk.select([{ stratum: document.id, kind, id }]);
    const item = this.plate()?.item(document.id, kind, id);
    if (!item) return;
    const { storeyMetres } = this.state();
    this.dispatch(layoutActions.heightsSet({ bottom: Math.floor((item.bounds.min[1] + 0.5) / storeyMetres) * storeyMetres - 0.5, storeyMetres }));
    this.plate()?.frame(item.bounds);
  }

  private frame(): void {
    const bounds = [...this.selection().values()].map((item) => item.bounds);
    if (bounds.length === 0) this.frameLevel();
    else {
      const least = (k: number): number => Math.min(...bounds.map(({ min }) => min[k]));
      const most = (k: number): number => Math.max(...bounds.map(({ max }) => max[k]));
      this.plate()?.frame({ min: [least(0), least(1), least(2)], max: [most(0), most(1), most(2)] });
    }
  }

  /** The level's own strata in view; what it shares may be much wider. */
  private frameLevel(): void {
    const own = (this.openLevel.level()?.strata ?? []).map(({ stratum }) => stratum).filter((id) => this.desk.tables().stratum[id]?.owner !== null);
    this.plate()?.frameStrata(own);
  }

  private listItems(): ItemRef[] {
    this.registry.contentVersion();
    const document = this.openLevel.strata().find(({ id }) => id === this.desk.activeStratum()?.id);
    if (!document) return [];
    const ref = (kind: ItemKind, id: string): ItemRef => ({ stratum: document.id, kind, id });
    const placements: ItemRef[] = [];
    for (let slot = 0; slot < document.placements.slotCount; slot++) {
      const id = document.placements.idAt(slot);
      if (id !== undefined) placements.push(ref('placement', id));
    }
    return [
      ...[...document.blocks.keys()].map((id) => ref('block', id)),
      ...[...document.markers.keys()].map((id) => ref('marker', id)),
      ...[...document.dividers.keys()].map((id) => ref('divider', id)),
      ...placements,
    ];
  }

  private describeItem({ stratum, kind, id }: ItemRef): ItemLine {
    const item = this.openLevel
      .strata()
      .find((document) => document.id === stratum)
      ?.item(kind, id);
    if (!item) return { name: '', where: '' };
    const [x, y, z] = kind === 'divider' ? [(item as Divider).from[0], (item as Divider).bottom, (item as Divider).from[1]] : (item as Block).position;
    const name =
      kind === 'block'
        ? (item as Block).name || 'block'
        : kind === 'placement'
          ? (this.openLevel.pieces()[(item as Placement).piece]?.name ?? 'unknown piece')
          : kind === 'marker'
            ? (item as Marker).kind
            : 'divider';
    return { name, where: `${x.toFixed(1)}, ${y.toFixed(1)}, ${z.toFixed(1)}` };
  }
}
