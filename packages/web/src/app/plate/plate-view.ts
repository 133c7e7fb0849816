import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  Injector,
  afterNextRender,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
  untracked,
  viewChild,
  DestroyRef,
} from '@angular/core';
import type { Box3, ItemKind, Piece, SquareCode, Vector3 } from '@stravel/core';
import { INSET_BEFORE } from '../desk/desk-frame';
import type { StratumDocument } from '../document/stratum-document';
import { ALL_GROUPS } from '../document/unseen-groups';
import type { PieceMesh } from './kit-meshes';
import { boxAround } from './box-around';
import { boundsOfItem, ofItem } from './item-shapes';
import { KeptPicture, LastPicture } from './kept-picture';
import { PickIndex } from './pick-index';
import type { PickItem } from './pick-item';
import { ModelCamera, PlanCamera, type Pane } from './plate-cameras';
import { readPlateColours, type PlateColours } from './plate-colours';
import type {
  HeightRange,
  ModelCut,
  PlanPointer,
  PlateDrawing,
  PlateDrop,
  PlateMenu,
  PlateViews,
} from './plate-drawing';
import { labelNear, type PlateLabel } from './plate-labels';
import { PlateRenderer } from './plate-renderer';
import { boreInSteps, type Bore } from './rod/bore';
import { DueFrame } from './due-frame';
import { FrameAtRest } from './frame-at-rest';
import { PlateScene } from './plate-scene';
import { roughBounds } from './rough-bounds';
import { SlicedWork } from './sliced-work';
import type { KeptView } from './view-memory';
import { EYE_METRES } from './eye-level/steps';
import { EyeLevel } from './eye-level/eye-level';
import type { SelectedItems } from './selected-items';

/** From so many things on a stratum is framed by where they stand. */
const MANY_THINGS = 5000;
/** Along the top of the plan lie buttons. */
const TOP_PIXELS = 40;
/** A press that moves less is a click, pixels. */
const CLICK_PIXELS = 4;
const NOTHING: ReadonlySet<string> = new Set();

/** The drawing surface: plan and model of the same strata, with the same selection. */
@Component({
  selector: 'sv-plate',
  imports: [KeptPicture],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './plate-view.html',
  styleUrl: './plate-view.scss',
  // Kept within the plate by its styles, whatever size that has now.
  host: {
    '[style.--inset-right]': "inset().right + 'px'",
    '[style.--inset-bottom]': "inset().bottom + 'px'",
    '[style.--inset-width]': "inset().width + 'px'",
    '[style.--inset-height]': "inset().height + 'px'",
  },
})
export class PlateView {
  readonly strata = input.required<readonly StratumDocument[]>();
  readonly hidden = input<ReadonlySet<string>>(new Set());
  /** Groups that are hidden for one's own eyes. */
  readonly hiddenGroups = input(ALL_GROUPS);
  /** What the codes of tile floors mean. */
  readonly legend = input<readonly SquareCode[]>([]);
  readonly pieces = input.required<Readonly<Record<string, Piece>>>();
  readonly meshes = input.required<ReadonlyMap<string, PieceMesh>>();
  readonly selection = input<SelectedItems>(new Map());
  readonly range = input.required<HeightRange>();
  readonly views = input<PlateViews>('both');
  readonly theme = input<string>('light');
  readonly gridMetres = input(1);
  /** The view that lies over the other, where they are not side by side. */
  readonly front = input<'plan' | 'model'>();
  readonly inset = input(INSET_BEFORE);
  /** Share of the plan beside the model. */
  readonly split = input(0.5);
  readonly hasLabels = input(true);
  readonly hasGhosts = input(true);
  readonly hasEdges = input(false);
  readonly hasShade = input(true);
  /** Whether the model is seen from where one stands. */
  readonly isAtEyeLevel = input(false);
  readonly cut = input<ModelCut>();
  readonly hasGrid = input(true);
  /** Things with errors. */
  readonly faulty = input<ReadonlySet<string>>(new Set());
  /** What is drawn here, so that the next plate shows it until it has drawn it itself; '' for nothing that comes again. */
  readonly pictureOf = input('');
  /** Colours follow the theme. */
  protected readonly pictureKey = computed(() => this.pictureOf() + this.theme());
  readonly planLabel = input('Plan of the level');
  /** Drawn over both views; read anew whenever it changes. */
  readonly overlay = input<(drawing: PlateDrawing) => void>(() => undefined);
  /** Painted over the floor of the plan, under all marks. */
  readonly paint = input<(drawing: PlateDrawing) => void>(() => undefined);

  readonly planPointer = output<PlanPointer>();
  readonly modelPicked = output<{ hits: PickItem[]; event: PointerEvent }>();

  /** CSS pixels of a metre on the plan. */
  readonly planScale = signal(1);
  /** Where the pointer is on the plan, metres; undefined when it is not there. */
  readonly pointerAt = signal<Vector3 | undefined>(undefined);
  /** What lies at which height. */
  readonly bore = signal<Bore | undefined>(undefined);

  readonly dropped = output<PlateDrop>();
  readonly eyeLevelEnded = output();
  readonly menuAsked = output<PlateMenu>();

  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly under = viewChild.required<ElementRef<HTMLCanvasElement>>('under');
  private readonly drawing = viewChild.required<ElementRef<HTMLCanvasElement>>('drawing');
  private readonly over = viewChild.required<ElementRef<HTMLCanvasElement>>('over');
  private readonly plan = viewChild.required<ElementRef<HTMLElement>>('plan');
  private readonly model = viewChild.required<ElementRef<HTMLElement>>('model');

  private readonly keptPicture = viewChild.required(KeptPicture);
  private readonly lastPicture = inject(LastPicture);
  private readonly injector = inject(Injector);
  private readonly scene = new PlateScene(() => this.dueFrame.ask());
  private readonly visibleStrata = computed(() => this.strata().filter(({ id }) => !this.hidden().has(id)));
  private readonly picks = new PickIndex(
    () => this.visibleStrata(),
    () => this.pieces(),
    () => this.scene.pendingBlocks + this.scene.leftOutBlocks,
    () => this.hiddenGroups(),
    (items) => queueMicrotask(() => this.boreWork.begin(this.findBore(items))),
  );
  private readonly boreWork = new SlicedWork();
  private hovered: PlateLabel | undefined;
  private readonly planCamera = new PlanCamera();
  private readonly modelCamera = new ModelCamera();
  private renderer: PlateRenderer | undefined;
  private colours: PlateColours | undefined;
  /** Sizes of the frame that was drawn last, CSS pixels. */
  private shown:
    { readonly size: { width: number; height: number }; readonly plan: Pane; readonly model: Pane } | undefined;
  private readonly dueFrame = new DueFrame(() => this.render());
  private readonly atRest = new FrameAtRest({
    key: () => `${this.pictureOf()} ${this.shown?.model.width} ${this.shown?.model.height}`,
    timed: async () => {
      const began = performance.now();
      this.redraw(false);
      await this.renderer?.finished();
      return performance.now() - began;
    },
    fine: async () => {
      await this.renderer?.bringShade();
      this.redraw(true);
    },
  });
  protected readonly eyes = new EyeLevel(
    this.modelCamera,
    (point) => this.picks.surfaceBelow(point, NOTHING),
    () => this.dueFrame.ask(),
  );
  private planPan: { x: number; y: number; moved: boolean } | undefined;
  private modelDrag: { x: number; y: number; moved: boolean; pan: boolean } | undefined;

  constructor() {
    afterNextRender(() => this.start());
    effect(() => this.scene.setStrata(this.strata(), this.hidden()));
    effect(() => this.scene.setHiddenGroups(this.hiddenGroups()));
    effect(() => this.scene.setMeshes(this.meshes()));
    effect(() => {
      this.theme();
      this.colours = undefined;
      this.dueFrame.ask();
    });
    effect(() => {
      for (const read of [
        this.selection,
        this.range,
        this.views,
        this.overlay,
        this.paint,
        this.gridMetres,
        this.legend,
        this.hiddenGroups,
        this.front,
        this.inset,
        this.split,
        this.hasLabels,
        this.hasGhosts,
        this.hasEdges,
        this.hasShade,
        this.cut,
        this.hasGrid,
        this.faulty,
      ])
        read();
      this.dueFrame.ask();
    });
    effect(() => (this.isAtEyeLevel() ? untracked(() => this.standUp()) : this.eyes.end()));
    inject(DestroyRef).onDestroy(() => {
      this.eyes.stop();
      this.keepPicture();
      this.dueFrame.end();
      this.atRest.end();
      this.boreWork.stop();
      this.scene.dispose();
      this.renderer?.dispose();
    });
  }

  /** Brings a box into view in both panes. */
  frame(box: Box3): void {
    this.planCamera.frame(this.paneOf(this.plan()), box, this.freeParts());
    this.modelCamera.frame(box, this.paneOf(this.model()));
    this.dueFrame.ask();
  }

  /** How it is looked at. */
  view(): Pick<KeptView, 'plan' | 'model'> {
    const { planCamera: plan, modelCamera: model } = this;
    return {
      plan: [plan.x, plan.z, plan.scale],
      model: [model.target.x, model.target.y, model.target.z, model.yawDegrees, model.pitchDegrees, model.distance],
    };
  }

  /** Looks at it as `view` told; without a model the model looks at the middle of the plan. */
  setView({
    plan: [x, z, scale],
    model,
  }: {
    readonly plan: KeptView['plan'];
    readonly model: KeptView['model'] | undefined;
  }): void {
    const { planCamera, modelCamera } = this;
    if (this.eyes.isOn()) {
      this.eyes.end();
      this.eyeLevelEnded.emit();
    }
    planCamera.look(x, z, scale);
    if (model) {
      modelCamera.target.set(model[0], model[1], model[2]);
      [modelCamera.yawDegrees, modelCamera.pitchDegrees, modelCamera.distance] = [
        model[3],
        Math.max(3, model[4]),
        model[5],
      ];
    } else {
      const box = this.bounds(() => true);
      if (box) modelCamera.frame(box);
      modelCamera.target.set(x, modelCamera.target.y, z);
    }
    this.dueFrame.ask();
  }

  /** Brings what is shown of some strata into view, or all of it when nothing of them is. */
  frameStrata(strata: readonly string[]): void {
    const box = this.bounds((stratum) => strata.includes(stratum)) ?? this.bounds(() => true);
    if (box) this.frame(box);
  }

  private bounds(counts: (stratum: string) => boolean): Box3 | undefined {
    const strata = this.visibleStrata().filter(({ id }) => counts(id));
    // Where very many stand, the size of each says next to nothing.
    if (strata.reduce((sum, { size }) => sum + size, 0) > MANY_THINGS) return roughBounds(strata);
    const boxes = this.picks.everything().flatMap(({ bounds, stratum }) => (counts(stratum) ? [bounds] : []));
    // What is not drawn yet has no bounds; where its blocks stand says enough.
    if (this.scene.pendingBlocks + this.scene.leftOutBlocks > 0) {
      for (const {
        id,
        tables: { block: blocks },
      } of this.visibleStrata())
        if (counts(id)) for (const { position } of blocks.values()) boxes.push({ min: position, max: position });
    }
    return boxAround(boxes);
  }

  /** Width of both views, CSS pixels. */
  widthPixels(): number {
    return this.host.clientWidth;
  }

  /** Things whose outline lies in a rectangle of the plan, within the heights shown. */
  itemsWithin(x0: number, z0: number, x1: number, z1: number): PickItem[] {
    const { bottom, top } = this.range();
    return this.picks.within([Math.min(x0, x1), bottom, Math.min(z0, z1)], [Math.max(x0, x1), top, Math.max(z0, z1)]);
  }

  /** Things whose bounds touch a square of the plan about a point, within the heights shown. @param reach metres */
  itemsNear(x: number, z: number, reach: number): PickItem[] {
    const { bottom, top } = this.range();
    return this.picks.touching([x - reach, bottom, z - reach], [x + reach, top, z + reach]);
  }

  /** Everything that is shown, at any height. */
  everything(): PickItem[] {
    return this.picks.everything();
  }

  /** Height of the block or placement under a point; undefined when there is none. @param skip ids that do not count */
  surfaceBelow(point: readonly [number, number, number], skip: ReadonlySet<string>): number | undefined {
    return this.picks.surfaceBelow(point, skip);
  }

  /** An item by its place in a stratum. */
  item(stratum: string, kind: ItemKind, id: string): PickItem | undefined {
    const document = this.strata().find((one) => one.id === stratum);
    const bounds = document && boundsOfItem(document, kind, id, this.pieces());
    return bounds && { stratum, kind, id, bounds };
  }

  /** A picture of a piece alone; undefined while nothing is drawn. */
  pictureOfPiece(mesh: PieceMesh, bounds: Box3): Promise<Blob> | undefined {
    return this.renderer?.pictureOfPiece(mesh, bounds);
  }

  /** What the plan shows now. */
  planView(): { readonly middle: readonly [x: number, z: number]; readonly metresPerPixel: number } {
    return { middle: [this.planCamera.x, this.planCamera.z], metresPerPixel: 1 / this.planCamera.scale };
  }

  /** Face loops of an item, or the lines that show it; undefined when it has none. */
  facesOf(item: PickItem): readonly Float64Array[] | undefined {
    const document = this.strata().find(({ id }) => id === item.stratum);
    const outline = document && ofItem(document, item.kind, item.id, (spec, thing) => spec.outline?.(thing));
    return outline ?? this.picks.facesOf(item);
  }

  planDown(event: PointerEvent): void {
    this.plan().nativeElement.setPointerCapture(event.pointerId);
    if (event.button !== 0) {
      this.planPan = { x: event.clientX, y: event.clientY, moved: false };
      return;
    }
    this.emitPlan('down', event);
  }

  planMove(event: PointerEvent): void {
    if (this.planPan) {
      const [dx, dy] = [event.clientX - this.planPan.x, event.clientY - this.planPan.y];
      if (!this.planPan.moved && Math.hypot(dx, dy) < CLICK_PIXELS) return;
      this.planCamera.x -= dx / this.planCamera.scale;
      this.planCamera.z -= dy / this.planCamera.scale;
      this.planPan = { x: event.clientX, y: event.clientY, moved: true };
      this.dueFrame.ask();
      return;
    }
    this.emitPlan('move', event);
  }

  planUp(event: PointerEvent): void {
    const { planPan } = this;
    if (planPan) {
      this.planPan = undefined;
      if (planPan.moved || event.button !== 2) return;
      const [px, py] = this.local(event);
      const pointer = this.pointerOn('up', event, ...this.planCamera.toPlan(this.paneOf(this.plan()), px, py));
      this.menuAsked.emit({ x: event.clientX, y: event.clientY, hits: () => pointer.hits(), pointer });
      return;
    }
    this.emitPlan(event.type === 'pointercancel' ? 'cancel' : 'up', event);
  }

  planWheel(event: WheelEvent): void {
    event.preventDefault();
    const [px, py] = this.local(event);
    this.planCamera.zoom(this.paneOf(this.plan()), px, py, Math.exp(-event.deltaY * 0.0015));
    this.dueFrame.ask();
  }

  modelDown(event: PointerEvent): void {
    this.model().nativeElement.setPointerCapture(event.pointerId);
    this.modelDrag = { x: event.clientX, y: event.clientY, moved: false, pan: event.button !== 0 || event.shiftKey };
  }

  modelMove(event: PointerEvent): void {
    const drag = this.modelDrag;
    if (!drag) return;
    const dx = event.clientX - drag.x;
    const dy = event.clientY - drag.y;
    if (!drag.moved && Math.hypot(dx, dy) < CLICK_PIXELS) return;
    if (drag.pan) this.modelCamera.pan(dx, dy, this.paneOf(this.model()));
    else this.modelCamera.turn(dx, dy);
    this.modelDrag = { ...drag, x: event.clientX, y: event.clientY, moved: true };
    this.dueFrame.ask();
  }

  modelUp(event: PointerEvent): void {
    const drag = this.modelDrag;
    this.modelDrag = undefined;
    if (!drag || drag.moved) return;
    const [px, py] = this.local(event);
    const { origin, direction } = this.modelCamera.ray(this.paneOf(this.model()), px, py);
    const hits = this.picks.alongRay(origin, direction);
    if (event.button === 0) this.modelPicked.emit({ hits, event });
    else if (event.button === 2)
      this.menuAsked.emit({ x: event.clientX, y: event.clientY, hits: () => hits, pointer: undefined });
  }

  /** The pointer asks for its menu by letting go, so that a drag can pan; a key asks for that of what is selected. */
  contextMenu(event: MouseEvent): void {
    event.preventDefault();
    if (!event.isTrusted)
      this.menuAsked.emit({ x: event.clientX, y: event.clientY, hits: undefined, pointer: undefined });
  }

  modelWheel(event: WheelEvent): void {
    event.preventDefault();
    this.modelCamera.zoom(Math.exp(-event.deltaY * 0.0015));
    this.dueFrame.ask();
  }

  /** Stands up where the selected thing is, else in the middle of the plan. */
  private standUp(): void {
    const box = boxAround([...this.selection().values()].map(({ bounds }) => bounds));
    const { planCamera, range } = this;
    this.eyes.begin(
      box
        ? [(box.min[0] + box.max[0]) / 2, box.min[1] + EYE_METRES, (box.min[2] + box.max[2]) / 2]
        : [planCamera.x, range().top, planCamera.z],
    );
    // The model may be out of sight until then.
    afterNextRender(() => this.model().nativeElement.focus(), { injector: this.injector });
  }

  protected eyeLevelKey(event: KeyboardEvent): void {
    if (!this.eyes.isOn()) return;
    if (event.key === 'Escape') this.eyeLevelEnded.emit();
    else if (event.ctrlKey || event.altKey || event.metaKey || !this.eyes.press(event.key)) return;
    event.preventDefault();
    event.stopPropagation();
  }

  /** Parts of the plan that neither the model nor the buttons along its top lie over. */
  private freeParts(): Pane[] {
    const { left, top, width, height } = this.paneOf(this.plan());
    const free = { left, top: top + TOP_PIXELS, width, height: Math.max(1, height - TOP_PIXELS) };
    if (this.front() !== 'model') return [free];
    const model = this.paneOf(this.model());
    return [
      { ...free, height: Math.max(1, model.top - free.top) },
      { ...free, width: Math.max(1, model.left - left) },
    ];
  }

  /** The name under the pointer that had no room. */
  protected hover(at: { readonly px: number; readonly py: number } | undefined): void {
    const hovered = at && labelNear(this.renderer?.hiddenLabels ?? [], at.px, at.py);
    if (!at) this.pointerAt.set(undefined);
    if (hovered?.id === this.hovered?.id) return;
    this.hovered = hovered;
    this.dueFrame.ask();
  }

  /** On the model it falls where the look through that pixel meets something, or the lowest height shown. */
  drop(event: DragEvent, view: 'plan' | 'model'): void {
    event.preventDefault();
    if (!event.dataTransfer) return;
    const [px, py] = this.local(event);
    let spot: readonly [number, number] | undefined = this.planCamera.toPlan(this.paneOf(this.plan()), px, py);
    if (view === 'model') {
      const { origin, direction } = this.modelCamera.ray(this.paneOf(this.model()), px, py);
      spot = this.picks.firstPoint(origin, direction, this.range().bottom);
    }
    if (spot) this.dropped.emit({ data: event.dataTransfer, pointer: this.pointerOn('up', event, spot[0], spot[1]) });
  }

  private emitPlan(phase: PlanPointer['phase'], event: PointerEvent): void {
    const [px, py] = this.local(event);
    const [x, z] = this.planCamera.toPlan(this.paneOf(this.plan()), px, py);
    const { bottom, top } = this.range();
    const surface = this.picks.isReady() ? this.picks.surfaceBelow([x, top, z], NOTHING) : undefined;
    this.pointerAt.set([x, surface ?? bottom, z]);
    if (phase === 'move') this.hover({ px, py });
    this.planPointer.emit(this.pointerOn(phase, event, x, z));
  }

  private pointerOn(phase: PlanPointer['phase'], event: MouseEvent, x: number, z: number): PlanPointer {
    const metresPerPixel = 1 / this.planCamera.scale;
    const { bottom, top } = this.range();
    return {
      phase,
      x,
      z,
      event,
      metresPerPixel,
      hits: () => this.picks.atPlan(x, z, bottom, top, metresPerPixel * 3),
    };
  }

  private *findBore(items: readonly PickItem[]): Generator<void> {
    this.bore.set(yield* boreInSteps(items));
  }

  private start(): void {
    this.renderer = new PlateRenderer(
      this.under().nativeElement,
      this.drawing().nativeElement,
      this.over().nativeElement,
      this.scene,
      this.planCamera,
      this.modelCamera,
    );
    const observer = new ResizeObserver(() => this.dueFrame.ask());
    observer.observe(this.host);
    observer.observe(this.plan().nativeElement);
    observer.observe(this.model().nativeElement);
    // The renderer makes its things anew when its context is back; nothing asks for a frame by itself then.
    this.drawing().nativeElement.addEventListener('webglcontextrestored', () => {
      this.renderer?.setUp();
      this.dueFrame.ask();
    });
    this.dueFrame.ask();
  }

  private render(): void {
    this.colours ??= readPlateColours(this.host);
    const { width, height } = this.host.getBoundingClientRect();
    this.shown = { size: { width, height }, plan: this.paneOf(this.plan()), model: this.paneOf(this.model()) };
    this.draw(this.shown, this.colours);
    if (this.planScale() !== this.planCamera.scale) this.planScale.set(this.planCamera.scale);
    if (this.scene.isDrawing) return;
    if (this.hasShade() && this.shown.model.width > 0) this.atRest.drawn();
    if (this.strata().length > 0 || this.pictureOf() === '') this.keptPicture().done();
    // Where things are is looked up ahead of the first click.
    this.picks.prepare();
  }

  /** Once more, as what a drawing context shows is gone when its page is painted; the plate has left the page already. */
  private keepPicture(): void {
    const { shown, colours } = this;
    if (!shown || !colours || this.pictureOf() === '' || this.scene.isDrawing) return;
    this.draw(shown, colours);
    const layers = [this.under(), this.drawing(), this.over()].map(({ nativeElement }) => nativeElement);
    this.lastPicture.keep(this.pictureKey(), layers, shown.size, colours.plate);
  }

  /** What was drawn last, as it is now. */
  private redraw(isAtRest: boolean): void {
    if (this.shown && this.colours) this.draw(this.shown, this.colours, isAtRest);
  }

  private draw({ size, plan, model }: NonNullable<PlateView['shown']>, colours: PlateColours, isAtRest = false): void {
    this.renderer?.render(size, plan, model, {
      colours,
      strata: this.visibleStrata(),
      hiddenGroups: this.hiddenGroups(),
      legend: this.legend(),
      selection: this.selection(),
      facesOf: (item) => this.facesOf(item),
      range: this.range(),
      gridMetres: this.gridMetres(),
      front: this.front(),
      hasGrid: this.hasGrid(),
      hasGhosts: this.hasGhosts(),
      hasEdges: this.hasEdges(),
      hasShade: this.hasShade(),
      cut: this.cut(),
      isAtRest,
      hasLabels: this.hasLabels(),
      faulty: this.faulty(),
      hovered: this.hovered,
      paint: this.paint(),
      overlay: this.overlay(),
    });
  }

  private paneOf(element: ElementRef<HTMLElement>): Pane {
    const host = this.host.getBoundingClientRect();
    const own = element.nativeElement.getBoundingClientRect();
    return { left: own.left - host.left, top: own.top - host.top, width: own.width, height: own.height };
  }

  private local(event: MouseEvent): [number, number] {
    const host = this.host.getBoundingClientRect();
    return [event.clientX - host.left, event.clientY - host.top];
  }
}
