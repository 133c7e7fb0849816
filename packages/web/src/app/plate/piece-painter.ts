import type { Box3 } from '@stravel/core';
import {
  DirectionalLight,
  HemisphereLight,
  Mesh,
  OrthographicCamera,
  Scene,
  Vector3,
  WebGLRenderTarget,
  type WebGLRenderer,
} from 'three';
import type { PieceMesh } from './kit-meshes';
import { LIGHTS } from './plate-scene';

/** Twice as large as pictures of pieces are shown. */
const SIZE = { width: 168, height: 128 };
/** A pixel is the mean of so many by so many that were drawn. */
const SAMPLES = 2;
const DRAWN = { width: SIZE.width * SAMPLES, height: SIZE.height * SAMPLES };
/** The picture reaches so far beyond the piece. */
const MARGIN = 1.06;
/** From where a piece is looked at: from its right, from the front, from above. */
const FROM = new Vector3(0.52, 0.5, 0.85).normalize();

/**
 * Draws pieces in the model's light and materials with the renderer that shows the level: a context of its own would take seconds
 * where there is no graphics card, and hold every mesh twice.
 */
export class PiecePainter {
  private readonly target = new WebGLRenderTarget(DRAWN.width, DRAWN.height);
  private readonly scene = new Scene();
  private readonly camera = new OrthographicCamera();

  constructor(private readonly renderer: WebGLRenderer) {
    const { sky, ground, around, sun, from } = LIGHTS.model;
    const light = new DirectionalLight(0xffffff, sun);
    light.position.set(from[0], from[1], from[2]);
    this.scene.add(new HemisphereLight(sky, ground, around), light);
  }

  /** A PNG of the full step of a piece, on nothing. */
  async draw({ steps: [full] }: PieceMesh, bounds: Box3): Promise<Blob> {
    const { renderer, target } = this;
    this.look(bounds);
    const meshes = full.parts.map(({ geometry, material }) => new Mesh(geometry, material));
    this.scene.add(...meshes);
    // Waiting for a program to be made would hold the page as long as all that is still to be drawn takes.
    renderer.setRenderTarget(target);
    const isReady = renderer.compileAsync(this.scene, this.camera);
    renderer.setRenderTarget(null);
    await isReady;
    renderer.setRenderTarget(target);
    renderer.clear();
    renderer.render(this.scene, this.camera);
    renderer.setRenderTarget(null);
    this.scene.remove(...meshes);
    const drawn = new Uint8Array(DRAWN.width * DRAWN.height * 4);
    await renderer.readRenderTargetPixelsAsync(target, 0, 0, DRAWN.width, DRAWN.height, drawn);
    const canvas = Object.assign(document.createElement('canvas'), SIZE);
    // Kept in memory: what is read back from a graphics card waits for it.
    const context = canvas.getContext('2d', { willReadFrequently: true });
    context?.putImageData(new ImageData(shownPixels(drawn, SIZE, SAMPLES), SIZE.width), 0, 0);
    return new Promise((resolve, reject) =>
      canvas.toBlob((blob) => (blob ? resolve(blob) : reject(new Error('the picture could not be made')))),
    );
  }

  dispose(): void {
    this.target.dispose();
  }

  /** Fits the box into the picture, as seen from one side. */
  private look({ min, max }: Box3): void {
    const middle = new Vector3(min[0] + max[0], min[1] + max[1], min[2] + max[2]).multiplyScalar(0.5);
    const reach = Math.max(1e-6, middle.distanceTo(new Vector3(min[0], min[1], min[2])));
    this.camera.position
      .copy(FROM)
      .multiplyScalar(reach * 2)
      .add(middle);
    this.camera.lookAt(middle);
    this.camera.updateMatrixWorld();
    let [width, height] = [0, 0];
    for (let corner = 0; corner < 8; corner++) {
      const at = new Vector3(corner & 1 ? max[0] : min[0], corner & 2 ? max[1] : min[1], corner & 4 ? max[2] : min[2]);
      at.applyMatrix4(this.camera.matrixWorldInverse);
      width = Math.max(width, Math.abs(at.x));
      height = Math.max(height, Math.abs(at.y));
    }
    const half = Math.max(height, (width * SIZE.height) / SIZE.width, reach * 1e-3) * MARGIN;
    const aside = (half * SIZE.width) / SIZE.height;
    Object.assign(this.camera, { left: -aside, right: aside, top: half, bottom: -half, near: 0, far: reach * 4 });
    this.camera.updateProjectionMatrix();
  }
}

/**
 * Pixels as a screen shows them from those of a render target, which are linear, multiplied by their opacity, and begin at the bottom.
 * @param drawn RGBA, `samples` times as many each way as `size`
 */
export function shownPixels(
  drawn: Uint8Array,
  { width, height }: { readonly width: number; readonly height: number },
  samples: number,
): Uint8ClampedArray<ArrayBuffer> {
  const shown = new Uint8ClampedArray(width * height * 4);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const sum = [0, 0, 0, 0];
      for (let j = 0; j < samples; j++) {
        for (let i = 0; i < samples; i++) {
          const from = (((height - 1 - y) * samples + j) * width * samples + x * samples + i) * 4;
          for (let k = 0; k < 4; k++) sum[k] += drawn[from + k];
        }
      }
      const to = (y * width + x) * 4;
      for (let k = 0; k < 3; k++) shown[to + k] = 255 * encoded(sum[3] === 0 ? 0 : Math.min(1, sum[k] / sum[3]));
      shown[to + 3] = sum[3] / (samples * samples);
    }
  }
  return shown;
}

/** From linear to sRGB, 0 to 1. Source: IEC 61966-2-1. */
function encoded(linear: number): number {
  return linear <= 0.0031308 ? linear * 12.92 : 1.055 * Math.pow(linear, 1 / 2.4) - 0.055;
}
