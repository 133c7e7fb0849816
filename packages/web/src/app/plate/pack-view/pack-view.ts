import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  ElementRef,
  afterNextRender,
  effect,
  inject,
  input,
  output,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { errorText, type Vector3 } from '@stravel/core';
import type { PackScene } from '@stravel/walker';
import {
  BoxGeometry,
  DirectionalLight,
  EdgesGeometry,
  HemisphereLight,
  LineBasicMaterial,
  LineSegments,
  PerspectiveCamera,
  Scene,
  type WebGLRenderer,
} from 'three';
import { FILLED_HOST } from '../../ui/filled-host';
import { DueFrame } from '../due-frame';
import { modelRenderer } from '../model-renderer';
import { readPlateColours } from '../plate-colours';
import { LIGHTS } from '../plate-scene';
import { PackedMeshes, type ReadPacked } from './packed-meshes';

/** How high the outline of a cell that is late stands, metres. */
const OUTLINE_METRES = 6;
/** So far ahead is looked. */
const AHEAD_METRES = 10;

/** Where one is and looks. */
export interface PackEye {
  readonly at: Vector3;
  /** Direction on the plan, of length 1. */
  readonly heading: readonly [number, number];
}

/** A cell whose square is outlined. */
export interface OutlinedCell {
  readonly min: readonly [number, number];
  readonly max: readonly [number, number];
}

/** A level of a pack, drawn from its files: exactly the objects and LODs that are said. */
@Component({
  selector: 'sv-pack-view',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<canvas #canvas role="img" [attr.aria-label]="label()"></canvas>`,
  styles: [
    FILLED_HOST,
    `
      :host {
        overflow: hidden;
        background: linear-gradient(var(--sky), var(--haze) 52%, var(--plate) 53%);
      }
      canvas {
        position: absolute;
        inset: 0;
        width: 100%;
        height: 100%;
      }
    `,
  ],
})
export class PackView {
  readonly scene = input.required<PackScene>();
  readonly read = input.required<ReadPacked>();
  /** LOD of each object, -1 for what is not drawn. */
  readonly lods = input.required<ArrayLike<number>>();
  readonly eye = input.required<PackEye>();
  readonly outlined = input<readonly OutlinedCell[]>([]);
  readonly fieldOfViewDegrees = input(60);
  readonly label = input('');
  readonly theme = input('light');
  /** A file that could not be read, in words; '' for none. */
  readonly failed = output<string>();

  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  private readonly world = new Scene();
  private readonly camera = new PerspectiveCamera(60, 1, 0.1, 20000);
  private readonly lines = new LineBasicMaterial();
  private outlines: LineSegments[] = [];
  private renderer: WebGLRenderer | undefined;
  private meshes: PackedMeshes | undefined;
  /** Raised when a file was read. */
  private readonly readFiles = signal(0);
  private readonly frame = new DueFrame(() => this.render());

  constructor() {
    const { sky, ground, around, sun, from } = LIGHTS.model;
    const light = new DirectionalLight(0xffffff, sun);
    light.position.set(from[0], from[1], from[2]);
    this.world.add(new HemisphereLight(sky, ground, around), light);
    effect(() => {
      const [scene, read] = [this.scene(), this.read()];
      untracked(() => this.take(scene, read));
    });
    effect(() => {
      this.readFiles();
      this.meshes?.show(this.lods());
      this.frame.ask();
    });
    effect(() => {
      this.outline(this.outlined());
      this.eye();
      this.theme();
      this.fieldOfViewDegrees();
      this.frame.ask();
    });
    afterNextRender(() => {
      this.renderer = modelRenderer(this.canvas().nativeElement, { stencil: false });
      this.renderer.setClearColor(0x000000, 0);
      new ResizeObserver(() => this.frame.ask()).observe(this.host);
      this.frame.ask();
    });
    inject(DestroyRef).onDestroy(() => {
      this.frame.end();
      this.drop();
      this.outline([]);
      this.lines.dispose();
      this.renderer?.dispose();
      this.renderer?.forceContextLoss();
    });
  }

  private take(scene: PackScene, read: ReadPacked): void {
    this.drop();
    const meshes = new PackedMeshes(scene);
    this.meshes = meshes;
    this.world.add(meshes.group);
    const more = (): void => {
      if (this.meshes === meshes) this.readFiles.update((count) => count + 1);
    };
    meshes.read(read, more).catch((error: unknown) => {
      if (this.meshes === meshes) this.failed.emit(errorText(error));
    });
  }

  private drop(): void {
    if (!this.meshes) return;
    this.world.remove(this.meshes.group);
    this.meshes.dispose();
    this.meshes = undefined;
  }

  private outline(cells: readonly OutlinedCell[]): void {
    for (const line of this.outlines) {
      this.world.remove(line);
      line.geometry.dispose();
    }
    this.outlines = cells.map(({ min, max }) => {
      const box = new BoxGeometry(max[0] - min[0], OUTLINE_METRES, max[1] - min[1]);
      const line = new LineSegments(new EdgesGeometry(box), this.lines);
      box.dispose();
      line.position.set((min[0] + max[0]) / 2, this.eye().at[1], (min[1] + max[1]) / 2);
      this.world.add(line);
      return line;
    });
  }

  private render(): void {
    const { renderer } = this;
    if (!renderer) return;
    const { clientWidth: width, clientHeight: height } = this.host;
    renderer.setPixelRatio(Math.min(2, devicePixelRatio));
    renderer.setSize(width, height, false);
    this.lines.color.set(readPlateColours(this.host).over);
    const { at, heading } = this.eye();
    this.camera.fov = this.fieldOfViewDegrees();
    this.camera.aspect = width / Math.max(1, height);
    this.camera.position.set(at[0], at[1], at[2]);
    this.camera.lookAt(at[0] + heading[0] * AHEAD_METRES, at[1] - 0.4, at[2] + heading[1] * AHEAD_METRES);
    this.camera.updateProjectionMatrix();
    renderer.render(this.world, this.camera);
  }
}
