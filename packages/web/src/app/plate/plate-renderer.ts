import { pixelsAtOneMetre, type Box3, type SquareCode } from '@stravel/core';
import { Plane, Vector3, type WebGLRenderer } from 'three';
import type { StratumDocument } from '../document/stratum-document';
import type { HiddenGroups } from '../document/unseen-groups';
import type { CornerShade } from './corner-shade';
import type { PickItem } from './pick-item';
import type { ModelCamera, Pane, PlanCamera } from './plate-cameras';
import type { PlateColours } from './plate-colours';
import { drawGrid, drawMarks, drawPending, drawSelection } from './plate-marks';
import { placeLabels, writeLabels, type PlacedLabels, type PlateLabel } from './plate-labels';
import { LABEL_FONT } from './kinds/plate-kind';
import type { PlateScene } from './plate-scene';
import type { HeightRange, ModelCut, PlateDrawing } from './plate-drawing';
import type { SelectedItems } from './selected-items';
import type { PieceMesh } from './kit-meshes';
import { modelRenderer } from './model-renderer';
import { PiecePainter } from './piece-painter';

/** How strongly edges are drawn that the heights of the plan leave out. */
const GHOST_OPACITY = 0.16;
const MODEL_EDGE_OPACITY = 0.55;
/** How far a piece may be off at the detail step shown, pixels of the screen. */
const ERROR_PIXELS = 1;
/** How far sky and ground change above and below the horizon, in heights of the pane. */
const SKY_HEIGHT = 0.8;
const GROUND_DEPTH = 1.5;
/** A pane narrower than this is not shown. */
const MIN_PANE_PIXELS = 4;
const LOOK_AGAIN_MS = 2;
/** A name may begin so far outside its pane and still be seen. */
const LABEL_REACH = 200;

/** What one frame shows beside the scene. */
export interface PlateFrame {
  readonly colours: PlateColours;
  readonly strata: readonly StratumDocument[];
  readonly hiddenGroups: HiddenGroups;
  /** What the codes of tile floors mean. */
  readonly legend: readonly SquareCode[];
  readonly selection: SelectedItems;
  readonly facesOf: (item: PickItem) => readonly Float64Array[] | undefined;
  readonly range: HeightRange;
  readonly cut: ModelCut | undefined;
  readonly gridMetres: number;
  /** The view that lies over the other, where they are not side by side. */
  readonly front: 'plan' | 'model' | undefined;
  readonly hasGrid: boolean;
  readonly hasGhosts: boolean;
  /** Whether the model shows the edges of blocks. */
  readonly hasEdges: boolean;
  /** Whether the model has shade in its corners, once that was found. */
  readonly hasShade: boolean;
  /** Whether there is time to find it. */
  readonly isAtRest: boolean;
  readonly hasLabels: boolean;
  /** Things with errors: their names come before those of others. */
  readonly faulty: ReadonlySet<string>;
  /** Under the pointer on the plan: its name is written though it has no room. */
  readonly hovered: PlateLabel | undefined;
  /** Painted over the floor of the plan, under all marks. */
  readonly paint: (drawing: PlateDrawing) => void;
  /** Drawn over both views. */
  readonly overlay: (drawing: PlateDrawing) => void;
}

/** What is drawn with a pencil: below the scene and above it. */
interface Sheets {
  readonly under: CanvasRenderingContext2D;
  readonly over: CanvasRenderingContext2D;
}

/** Draws plan and model on three canvases: paper and grid, the scene, marks. */
export class PlateRenderer {
  private readonly renderer: WebGLRenderer;
  private shade: CornerShade | undefined;
  private painter: PiecePainter | undefined;
  private readonly widths = new Map<string, number>();
  /** Names on the plan that had no room in the last frame. */
  hiddenLabels: readonly PlateLabel[] = [];

  constructor(
    private readonly under: HTMLCanvasElement,
    drawing: HTMLCanvasElement,
    private readonly over: HTMLCanvasElement,
    private readonly scene: PlateScene,
    private readonly planCamera: PlanCamera,
    private readonly modelCamera: ModelCamera,
  ) {
    this.renderer = modelRenderer(drawing, { stencil: true });
    this.renderer.autoClear = false;
    this.renderer.localClippingEnabled = false;
    this.setUp();
  }

  /** A picture of a piece alone. */
  async pictureOfPiece(mesh: PieceMesh, bounds: Box3): Promise<Blob> {
    // Behind frames that are still to be drawn, asking for anything holds the page until they are.
    await this.finished();
    this.painter ??= new PiecePainter(this.renderer);
    return this.painter.draw(mesh, bounds);
  }

  /** What a context begins without, also one that is back after it was lost. */
  setUp(): void {
    // The first clear comes before the first render, and until then the clear colour would be opaque black.
    this.renderer.setClearColor(0x000000, 0);
    this.renderer.setScissorTest(true);
    this.shade?.forget();
  }

  /** @param size of all three canvases @param plan, model where the panes lie in them; CSS pixels */
  render(
    { width, height }: { readonly width: number; readonly height: number },
    plan: Pane,
    model: Pane,
    frame: PlateFrame,
  ): void {
    const { renderer } = this;
    const ratio = Math.min(2, devicePixelRatio);
    const sheets = {
      under: sizedContext(this.under, width, height, ratio),
      over: sizedContext(this.over, width, height, ratio),
    };
    if (renderer.getPixelRatio() !== ratio) renderer.setPixelRatio(ratio);
    const canvas = renderer.domElement;
    if (canvas.width !== Math.floor(width * ratio) || canvas.height !== Math.floor(height * ratio))
      renderer.setSize(width, height, false);
    renderer.setScissor(0, 0, width, height);
    renderer.setViewport(0, 0, width, height);
    renderer.clear();
    const views = [
      { view: 'plan' as const, pane: plan, render: (): void => this.renderPlan(plan, height, sheets, frame) },
      { view: 'model' as const, pane: model, render: (): void => this.renderModel(model, height, sheets, frame) },
    ];
    if (frame.front === 'plan') views.reverse();
    for (const { view, pane, render } of views) {
      if (pane.width <= MIN_PANE_PIXELS) continue;
      if (view === frame.front) this.clearPane(pane, height, sheets, frame.colours);
      render();
    }
  }

  /** Takes away what the larger view has drawn where the smaller one lies. */
  private clearPane(pane: Pane, height: number, { under, over }: Sheets, colours: PlateColours): void {
    const { left, top, width } = pane;
    under.fillStyle = colours.paper;
    under.fillRect(left, top, width, pane.height);
    over.clearRect(left, top, width, pane.height);
    this.setPane(pane, height);
    this.renderer.clear();
  }

  /** Makes it possible to find the shade in corners. */
  async bringShade(): Promise<void> {
    if (this.shade) return;
    const { CornerShade } = await import('./corner-shade');
    this.shade ??= new CornerShade(this.scene.scene, this.modelCamera.camera);
  }

  /** Resolves when what was asked of the graphics is drawn. */
  async finished(): Promise<void> {
    const context = this.renderer.getContext() as WebGL2RenderingContext;
    const fence = context.fenceSync(context.SYNC_GPU_COMMANDS_COMPLETE, 0);
    if (!fence) return;
    context.flush();
    while (context.clientWaitSync(fence, 0, 0) === context.TIMEOUT_EXPIRED)
      await new Promise((resolve) => setTimeout(resolve, LOOK_AGAIN_MS));
    context.deleteSync(fence);
  }

  dispose(): void {
    this.shade?.dispose();
    this.painter?.dispose();
    this.renderer.dispose();
    this.renderer.forceContextLoss();
  }

  private renderPlan(pane: Pane, height: number, { under, over }: Sheets, frame: PlateFrame): void {
    const { renderer, scene, planCamera } = this;
    const { colours, range, strata } = frame;
    planCamera.update(pane);
    inPane(under, pane, () => drawGrid(under, pane, planCamera, colours, frame.hasGrid ? frame.gridMetres : undefined));
    this.setPane(pane, height);
    scene.chooseSteps({
      eye: undefined,
      pixels: planCamera.scale * renderer.getPixelRatio(),
      errorPixels: ERROR_PIXELS,
    });
    scene.applyTheme('plan', colours);
    // What the heights leave out is ghosted: edges only.
    if (frame.hasGhosts) {
      scene.setEdgeOpacity(GHOST_OPACITY);
      renderer.render(scene.edges, planCamera.camera);
    }
    const underTop = new Plane(new Vector3(0, -1, 0), range.top);
    renderer.clippingPlanes = [underTop, new Plane(new Vector3(0, 1, 0), -range.bottom)];
    scene.setEdgeOpacity(1);
    renderer.render(scene.scene, planCamera.camera);
    // Blocks that reach through the top of the heights are filled where they are cut.
    renderer.clippingPlanes = [underTop];
    renderer.render(scene.caps.counts, planCamera.camera);
    renderer.clippingPlanes = [];
    renderer.render(scene.caps.fill, planCamera.camera);
    const drawing = this.drawingOf('plan', pane, over, colours);
    inPane(over, pane, () => {
      frame.paint(drawing);
      const labels = drawMarks(drawing, strata, frame.hiddenGroups, range, frame.legend, marksAs(frame));
      drawSelection(drawing, frame.selection, frame.facesOf);
      frame.overlay(drawing);
      this.hiddenLabels = this.writeLabels(over, labels, pane, frame).hidden;
      if (frame.hovered) writeRaised(over, frame.hovered, colours);
      drawPending(drawing, pane, scene.pendingBlocks, scene.leftOutBlocks);
    });
  }

  private renderModel(pane: Pane, height: number, { under, over }: Sheets, frame: PlateFrame): void {
    const { renderer, scene, modelCamera } = this;
    modelCamera.update(pane);
    inPane(under, pane, () => drawSky(under, pane, modelCamera.horizon(pane), frame.colours));
    this.setPane(pane, height);
    const { position, fov } = modelCamera.camera;
    const pixels = pixelsAtOneMetre({
      fieldOfViewDegrees: fov,
      pictureHeightPixels: pane.height * renderer.getPixelRatio(),
    });
    scene.chooseSteps({ eye: [position.x, position.y, position.z], pixels, errorPixels: ERROR_PIXELS });
    scene.applyTheme('model', frame.colours);
    scene.edges.visible = frame.hasEdges;
    scene.setEdgeOpacity(MODEL_EDGE_OPACITY);
    // The model is cut open at the top of the heights shown, so that a roof hides nothing.
    renderer.clippingPlanes = [new Plane(new Vector3(0, -1, 0), frame.range.top), ...cutPlanes(frame.cut)];
    renderer.render(scene.scene, modelCamera.camera);
    scene.edges.visible = true;
    if (frame.hasShade) {
      const ratio = renderer.getPixelRatio();
      const size = [Math.max(1, Math.floor(pane.width * ratio)), Math.max(1, Math.floor(pane.height * ratio))] as const;
      this.shade?.draw(
        renderer,
        size,
        `${scene.revision} ${frame.range.top} ${JSON.stringify(frame.cut ?? null)}`,
        frame.isAtRest,
      );
    }
    renderer.clippingPlanes = [];
    const drawing = this.drawingOf('model', pane, over, frame.colours);
    inPane(over, pane, () => {
      const labels = drawMarks(drawing, frame.strata, frame.hiddenGroups, undefined, frame.legend, marksAs(frame));
      frame.overlay(drawing);
      drawSelection(drawing, frame.selection, frame.facesOf);
      this.writeLabels(over, labels, pane, frame);
    });
  }

  /** Of a label's text, pixels: measured once, names come again in every frame. */
  private widthOf(context: CanvasRenderingContext2D, text: string): number {
    let width = this.widths.get(text);
    if (width === undefined) this.widths.set(text, (width = context.measureText(text).width));
    return width;
  }

  private writeLabels(
    context: CanvasRenderingContext2D,
    labels: readonly PlateLabel[],
    pane: Pane,
    { hasLabels, selection, faulty, colours }: PlateFrame,
  ): PlacedLabels {
    context.font = LABEL_FONT;
    const placed = placeLabels(
      labels.filter(({ x, y }) => isWithin(pane, x, y)),
      (text) => this.widthOf(context, text),
      (id) => (selection.has(id) ? 0 : faulty.has(id) ? 1 : 2),
    );
    const shown = hasLabels ? placed.shown : placed.shown.filter(({ id }) => selection.has(id));
    writeLabels(context, shown, { font: LABEL_FONT, ground: colours.plate });
    return hasLabels ? placed : { shown, hidden: labels };
  }

  private drawingOf(
    view: 'plan' | 'model',
    pane: Pane,
    context: CanvasRenderingContext2D,
    colours: PlateColours,
  ): PlateDrawing {
    const { planCamera, modelCamera } = this;
    return {
      view,
      context,
      colours,
      scale: planCamera.scale,
      at: (x, y, z) => (view === 'plan' ? planCamera.toScreen(pane, x, z) : modelCamera.toScreen(pane, x, y, z)),
    };
  }

  private setPane(pane: Pane, height: number): void {
    const bottom = height - pane.top - pane.height;
    this.renderer.setViewport(pane.left, bottom, pane.width, pane.height);
    this.renderer.setScissor(pane.left, bottom, pane.width, pane.height);
  }
}

function cutPlanes(cut: ModelCut | undefined): Plane[] {
  if (!cut) return [];
  const side = cut.keeps === 'less' ? -1 : 1;
  const normal = cut.axis === 'x' ? new Vector3(side, 0, 0) : new Vector3(0, 0, side);
  return [new Plane(normal, -side * cut.at)];
}

const isWithin = ({ left, top, width, height }: Pane, x: number, y: number): boolean =>
  x > left - LABEL_REACH && x < left + width && y > top - LABEL_REACH && y < top + height + LABEL_REACH;

function marksAs({ selection, hasGhosts }: PlateFrame): Parameters<typeof drawMarks>[5] {
  return { isSelected: (id) => selection.has(id), hasGhosts };
}

/** A name on a card of its own, over whatever lies there. */
function writeRaised(context: CanvasRenderingContext2D, label: PlateLabel, colours: PlateColours): void {
  context.font = LABEL_FONT;
  context.fillStyle = colours.paper;
  context.fillRect(label.x - 3, label.y - 12, context.measureText(label.text).width + 6, 17);
  writeLabels(context, [{ ...label, alpha: 1 }], { font: LABEL_FONT, ground: colours.paper });
}

function sizedContext(
  canvas: HTMLCanvasElement,
  width: number,
  height: number,
  ratio: number,
): CanvasRenderingContext2D {
  const w = Math.floor(width * ratio);
  const h = Math.floor(height * ratio);
  if (canvas.width !== w || canvas.height !== h) {
    canvas.width = w;
    canvas.height = h;
  }
  const context = canvas.getContext('2d') as CanvasRenderingContext2D;
  context.setTransform(ratio, 0, 0, ratio, 0, 0);
  context.clearRect(0, 0, width, height);
  return context;
}

/** Sky down to the horizon, haze at it, and the plate's own ground below. */
function drawSky(
  context: CanvasRenderingContext2D,
  { left, top, width, height }: Pane,
  horizon: number,
  { sky, haze, plate }: PlateColours,
): void {
  const filled = context.createLinearGradient(0, horizon - height * SKY_HEIGHT, 0, horizon + height * GROUND_DEPTH);
  filled.addColorStop(0, sky);
  filled.addColorStop(SKY_HEIGHT / (SKY_HEIGHT + GROUND_DEPTH), haze);
  filled.addColorStop(1, plate);
  context.fillStyle = filled;
  context.fillRect(left, top, width, height);
}

function inPane(context: CanvasRenderingContext2D, pane: Pane, draw: () => void): void {
  context.save();
  context.beginPath();
  context.rect(pane.left, pane.top, pane.width, pane.height);
  context.clip();
  draw();
  context.restore();
}
