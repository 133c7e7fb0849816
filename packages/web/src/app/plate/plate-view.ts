import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  afterNextRender,
  computed,
  effect,
  inject,
  input,
  output,
  viewChild,
  DestroyRef,
} from '@angular/core';
import type { Box3, ItemKind, Piece, SquareCode } from '@stravel/core';
import { KeepScroll } from '../document/level/keep-scroll';
import type { StratumDocument } from '../document/stratum-document';
import { ALL_GROUPS } from '../document/unseen-groups';
import type { PieceMesh } from './kit-meshes';
import { boxAround } from './box-around';
import { boundsOfItem, ofItem } from './item-shapes';
import { PickIndex } from './pick-index';
import type { PickItem } from './pick-item';
import { ModelCamera, PlanCamera, type Pane } from './plate-cameras';
import { readPlateColours, type PlateColours } from './plate-colours';
import type { HeightRange, PlanPointer, PlateDrawing, PlateViews } from './plate-drawing';
import { PlateRenderer } from './plate-renderer';
import { DueFrame } from './due-frame';
import { PlateScene } from './plate-scene';
import { roughBounds } from './rough-bounds';
import type { KeptView } from './view-memory';

/** From so many things on a stratum is framed by where they stand. */
const MANY_THINGS = 5000;

/** The drawing surface: plan and model of the same strata, with the same selection. */
@Component({
  selector: 'sv-plate',
  imports: [KeepScroll],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <canvas #under class="under"></canvas>
    <canvas #drawing class="drawing"></canvas>
    <canvas #over class="over"></canvas>
    <div class="panes" [class]="views()">
      <div
        #plan
        class="pane plan"
        role="application"
        tabindex="0"
        [attr.aria-label]="planLabel()"
        (pointerdown)="planDown($event)"
        (pointermove)="planMove($event)"
        (pointerup)="planUp($event)"
        (pointercancel)="planUp($event)"
        (wheel)="planWheel($event)"
        (contextmenu)="$event.preventDefault()"
      ></div>
      <div class="side">
        <div
          #model
          class="pane model"
          role="img"
          aria-label="Model of the level"
          (pointerdown)="modelDown($event)"
          (pointermove)="modelMove($event)"
          (pointerup)="modelUp($event)"
          (wheel)="modelWheel($event)"
          (contextmenu)="$event.preventDefault()"
        ></div>
        <div class="aside" svKeepScroll><ng-content /></div>
      </div>
    </div>
  `,
  styleUrl: './plate-view.scss',
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
  readonly selection = input<ReadonlyMap<string, PickItem>>(new Map());
  readonly range = input.required<HeightRange>();
  readonly views = input<PlateViews>('both');
  readonly theme = input<string>('light');
  readonly gridMetres = input(1);
  readonly planLabel = input('Plan of the level');
  /** Drawn over both views; read anew whenever it changes. */
  readonly overlay = input<(drawing: PlateDrawing) => void>(() => undefined);
  /** Painted over the floor of the plan, under all marks. */
  readonly paint = input<(drawing: PlateDrawing) => void>(() => undefined);

  readonly planPointer = output<PlanPointer>();
  readonly modelPicked = output<{ hits: PickItem[]; event: PointerEvent }>();

  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly under = viewChild.required<ElementRef<HTMLCanvasElement>>('under');
  private readonly drawing = viewChild.required<ElementRef<HTMLCanvasElement>>('drawing');
  private readonly over = viewChild.required<ElementRef<HTMLCanvasElement>>('over');
  private readonly plan = viewChild.required<ElementRef<HTMLElement>>('plan');
  private readonly model = viewChild.required<ElementRef<HTMLElement>>('model');

  private readonly scene = new PlateScene(() => this.dueFrame.ask());
  private readonly visibleStrata = computed(() => this.strata().filter(({ id }) => !this.hidden().has(id)));
  private readonly picks = new PickIndex(
    () => this.visibleStrata(),
    () => this.pieces(),
    () => this.scene.pendingBlocks + this.scene.leftOutBlocks,
    () => this.hiddenGroups(),
  );
  private readonly planCamera = new PlanCamera();
  private readonly modelCamera = new ModelCamera();
  private renderer: PlateRenderer | undefined;
  private colours: PlateColours | undefined;
  private readonly dueFrame = new DueFrame(() => this.render());
  private planPan: { x: number; y: number } | undefined;
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
      ])
        read();
      this.dueFrame.ask();
    });
    inject(DestroyRef).onDestroy(() => {
      this.dueFrame.end();
      this.scene.dispose();
      this.renderer?.dispose();
    });
  }

  /** Brings a box into view in both panes. */
  frame(box: Box3): void {
    this.planCamera.frame(this.paneOf(this.plan()), box);
    this.modelCamera.frame(box);
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
    planCamera.look(x, z, scale);
    if (model) {
      modelCamera.target.set(model[0], model[1], model[2]);
      [modelCamera.yawDegrees, modelCamera.pitchDegrees, modelCamera.distance] = [model[3], model[4], model[5]];
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

  /** Face loops of an item, or the lines that show it; undefined when it has none. */
  facesOf(item: PickItem): readonly Float64Array[] | undefined {
    const document = this.strata().find(({ id }) => id === item.stratum);
    const outline = document && ofItem(document, item.kind, item.id, (spec, thing) => spec.outline?.(thing));
    return outline ?? this.picks.facesOf(item);
  }

  planDown(event: PointerEvent): void {
    this.plan().nativeElement.setPointerCapture(event.pointerId);
    if (event.button !== 0) {
      this.planPan = { x: event.clientX, y: event.clientY };
      return;
    }
    this.emitPlan('down', event);
  }

  planMove(event: PointerEvent): void {
    if (this.planPan) {
      this.planCamera.x -= (event.clientX - this.planPan.x) / this.planCamera.scale;
      this.planCamera.z -= (event.clientY - this.planPan.y) / this.planCamera.scale;
      this.planPan = { x: event.clientX, y: event.clientY };
      this.dueFrame.ask();
      return;
    }
    this.emitPlan('move', event);
  }

  planUp(event: PointerEvent): void {
    if (this.planPan) {
      this.planPan = undefined;
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
    if (!drag.moved && Math.hypot(dx, dy) < 4) return;
    if (drag.pan) this.modelCamera.pan(dx, dy, this.paneOf(this.model()));
    else this.modelCamera.turn(dx, dy);
    this.modelDrag = { ...drag, x: event.clientX, y: event.clientY, moved: true };
    this.dueFrame.ask();
  }

  modelUp(event: PointerEvent): void {
    const drag = this.modelDrag;
    this.modelDrag = undefined;
    if (!drag || drag.moved || event.button !== 0) return;
    const [px, py] = this.local(event);
    const { origin, direction } = this.modelCamera.ray(this.paneOf(this.model()), px, py);
    this.modelPicked.emit({ hits: this.picks.alongRay(origin, direction), event });
  }

  modelWheel(event: WheelEvent): void {
    event.preventDefault();
    this.modelCamera.zoom(Math.exp(-event.deltaY * 0.0015));
    this.dueFrame.ask();
  }

  private emitPlan(phase: PlanPointer['phase'], event: PointerEvent): void {
    const [px, py] = this.local(event);
    const [x, z] = this.planCamera.toPlan(this.paneOf(this.plan()), px, py);
    const metresPerPixel = 1 / this.planCamera.scale;
    const { bottom, top } = this.range();
    this.planPointer.emit({
      phase,
      x,
      z,
      event,
      metresPerPixel,
      hits: () => this.picks.atPlan(x, z, bottom, top, metresPerPixel * 3),
    });
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
    this.dueFrame.ask();
  }

  private render(): void {
    this.colours ??= readPlateColours(this.host);
    this.renderer?.render(this.host.getBoundingClientRect(), this.paneOf(this.plan()), this.paneOf(this.model()), {
      colours: this.colours,
      strata: this.visibleStrata(),
      hiddenGroups: this.hiddenGroups(),
      legend: this.legend(),
      selection: this.selection(),
      facesOf: (item) => this.facesOf(item),
      range: this.range(),
      gridMetres: this.gridMetres(),
      paint: this.paint(),
      overlay: this.overlay(),
    });
    // Where things are is looked up ahead of the first click.
    if (!this.scene.isDrawing) this.picks.prepare();
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
