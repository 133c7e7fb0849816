import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  ElementRef,
  afterNextRender,
  computed,
  effect,
  inject,
  input,
  viewChild,
} from '@angular/core';
import type { Box3 } from '@stravel/core';
import {
  BoxGeometry,
  DirectionalLight,
  EdgesGeometry,
  Group,
  HemisphereLight,
  LineBasicMaterial,
  LineSegments,
  Mesh,
  Scene,
  type BufferGeometry,
  type WebGLRenderer,
  WireframeGeometry,
} from 'three';
import { letGo, type StepMesh } from './kit-meshes';
import { modelRenderer } from './model-renderer';
import { ModelCamera } from './plate-cameras';
import { FILLED_HOST } from '../ui/filled-host';
import { DueFrame } from './due-frame';
import { readPlateColours } from './plate-colours';

/** One step of a piece, to be turned and looked at from near. */
@Component({
  selector: 'sv-piece-view',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<canvas
    #canvas
    role="img"
    [attr.aria-label]="label()"
    (pointerdown)="down($event)"
    (pointermove)="move($event)"
    (pointerup)="drag = undefined"
    (wheel)="wheel($event)"
  ></canvas>`,
  styles: [
    FILLED_HOST,
    `
      :host {
        overflow: hidden;
      }
    canvas {
      position: absolute;
      inset: 0;
      width: 100%;
      height: 100%;
      touch-action: none;
    }
    `,
  ],
})
export class PieceView {
  readonly step = input.required<StepMesh | undefined>();
  readonly bounds = input.required<Box3>();
  readonly label = input('The piece');
  readonly theme = input('light');
  readonly showsEdges = input(true);
  /** What stops and carries in its place, drawn as lines: meshes, or a box. */
  readonly collision = input<readonly BufferGeometry[] | Box3>([]);

  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  private readonly scene = new Scene();
  private readonly camera = new ModelCamera();
  private readonly shown = new Group();
  /** Steps that were shown; the library keeps them when this view ends. */
  private readonly drawn = new Set<StepMesh>();
  private readonly edgeMaterial = new LineBasicMaterial({ transparent: true, opacity: 0.45 });
  private readonly collisionMaterial = new LineBasicMaterial();
  private renderer: WebGLRenderer | undefined;
  private readonly frame = new DueFrame(() => this.render());
  drag: { readonly x: number; readonly y: number } | undefined;
  private readonly framing = computed(() => JSON.stringify(this.bounds()));

  constructor() {
    const sun = new DirectionalLight(0xffffff, 1.9);
    sun.position.set(-0.5, 1.2, 0.7);
    this.camera.pitchDegrees = 18;
    this.scene.add(new HemisphereLight(0xffffff, 0xb8ad9a, 1.6), sun, this.shown);
    effect(() => {
      this.framing();
      this.camera.frame(this.bounds());
      this.frame.ask();
    });
    effect(() => {
      this.show(this.step(), this.showsEdges(), this.collision());
      this.theme();
      this.frame.ask();
    });
    afterNextRender(() => {
      this.renderer = modelRenderer(this.canvas().nativeElement, { stencil: false });
      this.renderer.setClearColor(0x000000, 0);
      const observer = new ResizeObserver(() => this.frame.ask());
      observer.observe(this.host);
      this.frame.ask();
    });
    inject(DestroyRef).onDestroy(() => {
      this.frame.end();
      this.show(undefined, false, []);
      letGo([{ steps: [...this.drawn] }]);
      this.edgeMaterial.dispose();
      this.collisionMaterial.dispose();
      this.renderer?.dispose();
      this.renderer?.forceContextLoss();
    });
  }

  down(event: PointerEvent): void {
    this.canvas().nativeElement.setPointerCapture(event.pointerId);
    this.drag = { x: event.clientX, y: event.clientY };
  }

  move(event: PointerEvent): void {
    if (!this.drag) return;
    this.camera.turn(event.clientX - this.drag.x, event.clientY - this.drag.y);
    this.drag = { x: event.clientX, y: event.clientY };
    this.frame.ask();
  }

  wheel(event: WheelEvent): void {
    event.preventDefault();
    this.camera.zoom(Math.exp(-event.deltaY * 0.0015));
    this.frame.ask();
  }

  private show(step: StepMesh | undefined, withEdges: boolean, collision: readonly BufferGeometry[] | Box3): void {
    for (const child of [...this.shown.children]) {
      // Geometry and material of meshes belong to the kit; edges are this view's own.
      if (child instanceof LineSegments) (child.geometry as BufferGeometry).dispose();
      this.shown.remove(child);
    }
    if (step) this.drawn.add(step);
    for (const { geometry, material } of step?.parts ?? []) {
      this.shown.add(new Mesh(geometry, material));
      if (withEdges) this.shown.add(new LineSegments(new WireframeGeometry(geometry), this.edgeMaterial));
    }
    const lines =
      'min' in collision ? [boxLines(collision)] : collision.map((geometry) => new WireframeGeometry(geometry));
    for (const geometry of lines) this.shown.add(new LineSegments(geometry, this.collisionMaterial));
  }

  private render(): void {
    const { renderer } = this;
    const { width, height } = this.host.getBoundingClientRect();
    if (!renderer || width < 1 || height < 1) return;
    renderer.setPixelRatio(Math.min(2, devicePixelRatio));
    renderer.setSize(width, height, false);
    const { ink, kiln } = readPlateColours(this.host);
    this.edgeMaterial.color.set(ink);
    this.collisionMaterial.color.set(kiln);
    this.camera.update({ left: 0, top: 0, width, height });
    renderer.render(this.scene, this.camera.camera);
  }
}

/** The twelve edges of a box. */
function boxLines({ min, max }: Box3): BufferGeometry {
  const size = [0, 1, 2].map((k) => max[k] - min[k]);
  const box = new BoxGeometry(size[0], size[1], size[2]);
  const edges = new EdgesGeometry(box);
  box.dispose();
  return edges.translate((min[0] + max[0]) / 2, (min[1] + max[1]) / 2, (min[2] + max[2]) / 2);
}
