import type { Box3 } from '@stravel/core';
import { MathUtils, OrthographicCamera, PerspectiveCamera, Vector3 } from 'three';
import { EYE_METRES, lookablePitch, type Stand } from './eye-level/steps';

/** How far in front of one who stands what is looked at lies, and what the model turns about again afterwards, metres. */
const AHEAD_METRES = 0.5;
const AGAIN_METRES = 12;

/** A rectangle of the host element, CSS pixels. */
export interface Pane {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

/** The plan: looks straight down, −Z is up on the screen. */
export class PlanCamera {
  readonly camera = new OrthographicCamera();
  x = 0;
  z = 0;
  /** CSS pixels a metre. */
  scale = 8;

  update(pane: Pane): void {
    const halfWidth = pane.width / 2 / this.scale;
    const halfHeight = pane.height / 2 / this.scale;
    Object.assign(this.camera, {
      left: -halfWidth,
      right: halfWidth,
      top: halfHeight,
      bottom: -halfHeight,
      near: 1,
      far: 400000,
    });
    this.camera.position.set(this.x, 200000, this.z);
    this.camera.up.set(0, 0, -1);
    this.camera.lookAt(this.x, 0, this.z);
    this.camera.updateProjectionMatrix();
    this.camera.updateMatrixWorld();
  }

  toScreen(pane: Pane, x: number, z: number): [number, number] {
    return [
      pane.left + pane.width / 2 + (x - this.x) * this.scale,
      pane.top + pane.height / 2 + (z - this.z) * this.scale,
    ];
  }

  toPlan(pane: Pane, px: number, py: number): [number, number] {
    return [
      this.x + (px - pane.left - pane.width / 2) / this.scale,
      this.z + (py - pane.top - pane.height / 2) / this.scale,
    ];
  }

  zoom(pane: Pane, px: number, py: number, factor: number): void {
    const [x, z] = this.toPlan(pane, px, py);
    this.scale = MathUtils.clamp(this.scale * factor, 0.02, 800);
    const [nowX, nowZ] = this.toPlan(pane, px, py);
    this.x += x - nowX;
    this.z += z - nowZ;
  }

  /** @param scale CSS pixels a metre */
  look(x: number, z: number, scale: number): void {
    this.x = x;
    this.z = z;
    this.scale = MathUtils.clamp(scale, 0.02, 800);
  }

  /** Brings a box into view. @param free parts of the pane that nothing lies over: it goes where it is largest */
  frame(pane: Pane, { min, max }: Box3, free: readonly Pane[] = [pane]): void {
    const fits = free.map((part) => ({
      part,
      fit: Math.min(part.width / Math.max(1, max[0] - min[0]), part.height / Math.max(1, max[2] - min[2])),
    }));
    const { part, fit } = fits.reduce((best, one) => (one.fit > best.fit ? one : best));
    this.scale = MathUtils.clamp(fit * 0.9, 0.02, 800);
    this.x = (min[0] + max[0]) / 2 - (part.left + part.width / 2 - pane.left - pane.width / 2) / this.scale;
    this.z = (min[2] + max[2]) / 2 - (part.top + part.height / 2 - pane.top - pane.height / 2) / this.scale;
  }
}

/** The model: turns about a point. */
export class ModelCamera {
  readonly camera = new PerspectiveCamera(45, 1, 0.1, 20000);
  readonly target = new Vector3();
  yawDegrees = 32;
  pitchDegrees = 42;
  distance = 60;
  /** Whether it looks about from where it stands, not turned about its target. */
  private isStanding = false;

  update(pane: Pane): void {
    this.camera.position.copy(this.eye());
    this.camera.aspect = pane.width / Math.max(1, pane.height);
    this.camera.near = Math.max(0.05, this.distance / 500);
    this.camera.far = this.distance * 20 + 2000;
    this.camera.lookAt(this.target);
    this.camera.updateProjectionMatrix();
    this.camera.updateMatrixWorld();
  }

  toScreen(pane: Pane, x: number, y: number, z: number): [number, number] | undefined {
    const p = new Vector3(x, y, z).project(this.camera);
    if (p.z < -1 || p.z > 1) return undefined;
    return [pane.left + ((p.x + 1) / 2) * pane.width, pane.top + ((1 - p.y) / 2) * pane.height];
  }

  /** Where the horizon lies, CSS pixels from above; far off when one looks steeply. */
  horizon({ top, height }: Pane): number {
    const half = Math.tan(MathUtils.degToRad(this.camera.fov / 2));
    const up = Math.tan(MathUtils.degToRad(Math.min(80, this.pitchDegrees))) / half;
    return top + (height / 2) * (1 - up);
  }

  ray(pane: Pane, px: number, py: number): { origin: number[]; direction: number[] } {
    const at = new Vector3(
      ((px - pane.left) / pane.width) * 2 - 1,
      1 - ((py - pane.top) / pane.height) * 2,
      0.5,
    ).unproject(this.camera);
    const direction = at.sub(this.camera.position).normalize();
    return { origin: this.camera.position.toArray(), direction: direction.toArray() };
  }

  turn(dx: number, dy: number): void {
    if (this.isStanding) {
      // What is drawn follows the pointer, as when the model is turned.
      this.look(this.eye(), this.yawDegrees + dx * 0.25, lookablePitch(this.pitchDegrees - dy * 0.25));
      return;
    }
    this.yawDegrees -= dx * 0.4;
    this.pitchDegrees = MathUtils.clamp(this.pitchDegrees + dy * 0.3, 3, 89);
  }

  /** Looks from the eyes of somebody who stands there. */
  stand({ x, floor, z, yawDegrees, pitchDegrees }: Stand): void {
    this.isStanding = true;
    this.distance = AHEAD_METRES;
    this.look(new Vector3(x, floor + EYE_METRES, z), yawDegrees, pitchDegrees);
  }

  /** Turns about what is in front of it again, from a little above. */
  turnAbout(): void {
    const eye = this.eye();
    this.isStanding = false;
    this.distance = AGAIN_METRES;
    this.look(eye, this.yawDegrees, Math.max(12, this.pitchDegrees));
  }

  private eye(): Vector3 {
    const [yaw, pitch] = [this.yawDegrees, this.pitchDegrees].map(MathUtils.degToRad);
    const flat = Math.cos(pitch) * this.distance;
    return new Vector3(Math.sin(yaw) * flat, Math.sin(pitch) * this.distance, Math.cos(yaw) * flat).add(this.target);
  }

  private look(eye: Vector3, yawDegrees: number, pitchDegrees: number): void {
    this.target.set(0, 0, 0);
    [this.yawDegrees, this.pitchDegrees] = [yawDegrees, pitchDegrees];
    this.target.copy(eye.sub(this.eye()));
  }

  pan(dx: number, dy: number, pane: Pane): void {
    if (this.isStanding) return;
    const metres = (this.distance * 0.83) / pane.height;
    const right = new Vector3().setFromMatrixColumn(this.camera.matrixWorld, 0);
    const ahead = new Vector3().crossVectors(this.camera.up, right);
    this.target.addScaledVector(right, -dx * metres).addScaledVector(ahead, dy * metres);
  }

  zoom(factor: number): void {
    if (this.isStanding) return;
    this.distance = MathUtils.clamp(this.distance / factor, 0.5, 20000);
  }

  /** Brings a box into view. @param pane where it is shown: what is narrow is looked at from farther off */
  frame({ min, max }: Box3, { width, height }: Pick<Pane, 'width' | 'height'> = { width: 1, height: 1 }): void {
    if (this.isStanding) return;
    this.target.set((min[0] + max[0]) / 2, (min[1] + max[1]) / 2, (min[2] + max[2]) / 2);
    const narrower = width > 0 && width < height ? height / width : 1;
    this.distance = Math.max(4, Math.hypot(max[0] - min[0], max[1] - min[1], max[2] - min[2]) * 1.25 * narrower);
  }
}
