import { NgTemplateOutlet } from '@angular/common';
import type { ElementRef, TemplateRef } from '@angular/core';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  contentChild,
  effect,
  inject,
  input,
  output,
  viewChild,
} from '@angular/core';
import { Store } from '@ngrx/store';
import type { SquareCode } from '@stravel/core';
import { KeepScroll } from '../document/level/keep-scroll';
import { OpenLevel } from '../document/level/open-level';
import { LevelSections } from '../document/level/level-sections';
import { recordsFeature } from '../document/records/records-store';
import { ALL_GROUPS, type HiddenGroups } from '../document/unseen-groups';
import { FindingsHome } from '../findings/findings-home';
import { Help } from '../guide/help';
import { InsetHandles } from '../plate/inset-handles';
import { KitLibrary } from '../plate/kit-library';
import { LevelView } from '../plate/level-view';
import type { PickItem } from '../plate/pick-item';
import { PlateControls } from '../plate/plate-controls';
import type { PlanPointer, PlateDrawing, PlateDrop, PlateMenu } from '../plate/plate-drawing';
import { PlateLine } from '../plate/plate-line';
import { PlateView } from '../plate/plate-view';
import { StoreyRod } from '../plate/rod/storey-rod';
import { ShownMenu } from '../plate/shown-menu';
import { Session } from '../session';
import { DeadAddress } from '../shell/dead-address';
import { LevelSwitcher } from '../shell/level-switcher';
import { ContextMenus, type MenuEntry } from '../ui/context-menus';
import { DragBy, type DraggedBy } from '../ui/drag-by';
import { SheetHost } from './sheet-host';
import type { SelectedItems } from '../plate/selected-items';

type Part = TemplateRef<unknown>;

/**
 * The frame of every desk that works on one level: a line of tools, the plate with a column on each side, and what stands
 * below it. The page gives each part as a template: tools and main action of the line, left, beside (the card), row (what can be
 * done with it), below, meaning (of what the plate shows), shownMore.
 */
@Component({
  selector: 'sv-level-desk',
  imports: [
    DeadAddress,
    DragBy,
    Help,
    InsetHandles,
    KeepScroll,
    LevelSwitcher,
    NgTemplateOutlet,
    PlateControls,
    PlateLine,
    PlateView,
    SheetHost,
    ShownMenu,
    StoreyRod,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './level-desk.html',
  styleUrl: './level-desk.scss',
})
export class LevelDesk {
  readonly openLevel = inject(OpenLevel);
  readonly sections = inject(LevelSections);
  readonly kits = inject(KitLibrary);
  readonly view = inject(LevelView);
  readonly session = inject(Session);
  private readonly findings = inject(FindingsHome);
  private readonly tables = inject(Store).selectSignal(recordsFeature.selectTables);
  readonly frame = this.view.frame;
  readonly menus = inject(ContextMenus);
  readonly round = Math.round;

  /** Key of the level in the address. */
  readonly id = input<string>();
  /** What the desk is called, and its page of the guide. */
  readonly label = input.required<string>();
  readonly guide = input.required<string>();
  readonly toolsLabel = input.required<string>();
  readonly leftTitle = input('Strata');
  readonly rightTitle = input.required<string>();
  readonly hidden = input<ReadonlySet<string>>(new Set());
  readonly hiddenGroups = input<HiddenGroups>(ALL_GROUPS);
  readonly legend = input<readonly SquareCode[]>([]);
  readonly selection = input<SelectedItems>(new Map());
  readonly gridMetres = input(1);
  readonly overlay = input<(drawing: PlateDrawing) => void>(() => undefined);
  readonly paint = input<(drawing: PlateDrawing) => void>(() => undefined);
  /** What the plan shows beside the level, for those who hear it. */
  readonly planNote = input('');
  /** What went wrong on the desk itself. */
  readonly failure = input('');
  /** Whether what failed can be asked for again. */
  readonly canRetry = input(false);
  /** What the context menu of the plate offers at a place. */
  readonly menuOf = input<(menu: PlateMenu) => readonly MenuEntry[]>(() => []);
  readonly planPointer = output<PlanPointer>();
  readonly modelPicked = output<{ hits: PickItem[]; event: PointerEvent }>();
  readonly dropped = output<PlateDrop>();
  readonly retried = output();

  readonly plate = viewChild(PlateView);
  readonly fault = computed(() => this.failure() || this.openLevel.failure());
  /** The view that lies over the other: side by side they would both be small. */
  readonly front = computed((): 'plan' | 'model' | undefined =>
    this.frame.isWide() || this.view.shown().views !== 'both' ? undefined : this.frame.isSwapped() ? 'plan' : 'model',
  );
  readonly roles = computed(
    () => new Map(Object.values(this.tables().stratum).map(({ id, role }) => [id, role] as const)),
  );
  readonly faulty = computed(
    (): ReadonlySet<string> =>
      new Set(
        this.findings
          .open()
          .flatMap(({ severity, place: { item } }) => (severity === 'error' && item !== undefined ? [item] : [])),
      ),
  );
  private readonly card = viewChild<ElementRef<HTMLElement>>('card');

  constructor() {
    // The card of something new is read from its top.
    let before: string | undefined;
    effect(() => {
      const first = this.selection().keys().next().value;
      if (before !== first) this.card()?.nativeElement.scrollTo({ top: 0 });
      before = first;
    });
  }

  protected readonly tools = contentChild.required<Part>('tools');
  protected readonly main = contentChild<Part>('main');
  protected readonly left = contentChild.required<Part>('left');
  protected readonly beside = contentChild.required<Part>('beside');
  protected readonly row = contentChild<Part>('row');
  protected readonly below = contentChild<Part>('below');
  protected readonly meaning = contentChild<Part>('meaning');
  protected readonly shownMore = contentChild<Part>('shownMore');
  private from = 0;

  divide({ x, isBegun }: DraggedBy): void {
    if (isBegun) this.from = this.frame.split();
    this.frame.divide(this.from + x / (this.plate()?.widthPixels() ?? 1));
  }

  widen({ x, isBegun }: DraggedBy): void {
    if (isBegun) this.from = this.frame.rightPixels();
    this.frame.widen(this.from - x);
  }
}
