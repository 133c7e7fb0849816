import { DestroyRef, Injectable, inject, signal } from '@angular/core';
import { errorText, type Device, type PlanPoint, type Vector3 } from '@stravel/core';
import type { LiveMoment, PackWay } from '@stravel/walker';
import { Compute } from '../../../compute/compute';
import type { PackAddress } from '../../../compute/pack-walks';

/** How far one turns in a second, degrees. */
const TURN_DEGREES_PER_SECOND = 100;
/** Most frames of the device that one step goes on: what is slower goes on more slowly, and skips none. */
const MAX_FRAMES = 4;

/** What steers. */
export type Steer = 'forward' | 'back' | 'left' | 'right';
export const STEER_KEYS: Readonly<Record<string, Steer>> = {
  ArrowUp: 'forward',
  ArrowDown: 'back',
  ArrowLeft: 'left',
  ArrowRight: 'right',
};

/** A walk that somebody steers by keys, on the frames of the device. */
@Injectable()
export class Steering {
  private readonly compute = inject(Compute);
  readonly moment = signal<LiveMoment | undefined>(undefined);
  /** Direction that is looked in, degrees clockwise from −Z. */
  readonly headingDegrees = signal(0);
  readonly lods = signal<Int16Array>(new Int16Array(0));
  readonly failure = signal('');
  private readonly pressed = new Set<Steer>();
  private frame = 0;
  private lastMs = 0;
  private leftMs = 0;
  private isStepping = false;
  private frameMs = 1;

  constructor() {
    inject(DestroyRef).onDestroy(() => this.end());
  }

  /** Begins at a place, on the floor. @param objects how many the pack has */
  async begin(
    address: PackAddress,
    at: Vector3,
    speedMetresPerSecond: number,
    device: Device,
    objects: number,
  ): Promise<void> {
    this.end();
    this.frameMs = 1000 / device.framesPerSecond;
    this.lods.set(new Int16Array(objects).fill(-1));
    try {
      this.take(await this.compute.run('steer-pack', { ...address, at, speedMetresPerSecond, device }).result);
    } catch (error) {
      this.failure.set(errorText(error));
    }
  }

  press(steer: Steer): void {
    if (this.pressed.size === 0) {
      this.lastMs = performance.now();
      this.leftMs = this.frameMs;
      this.frame = requestAnimationFrame((now) => this.go(now));
    }
    this.pressed.add(steer);
  }

  release(steer: Steer): void {
    this.pressed.delete(steer);
    if (this.pressed.size === 0) cancelAnimationFrame(this.frame);
  }

  releaseAll(): void {
    this.pressed.clear();
    cancelAnimationFrame(this.frame);
  }

  /** Where one went; undefined where nobody went anywhere. */
  async way(): Promise<PackWay | undefined> {
    const moment = this.moment();
    if (!moment || moment.atMs === 0) return undefined;
    const knots = await this.compute.run('way-of-pack', undefined).result;
    return { name: 'Steered way', knots, floorMetres: this.floor };
  }

  /** Height of the floor at the beginning. */
  private floor = 0;

  end(): void {
    this.releaseAll();
    this.moment.set(undefined);
    this.failure.set('');
  }

  private go(now: number): void {
    const passedMs = Math.min(now - this.lastMs, this.frameMs * MAX_FRAMES);
    this.lastMs = now;
    const turn = (this.pressed.has('right') ? 1 : 0) - (this.pressed.has('left') ? 1 : 0);
    this.headingDegrees.update((degrees) => degrees + (turn * TURN_DEGREES_PER_SECOND * passedMs) / 1000);
    const ahead = (this.pressed.has('forward') ? 1 : 0) - (this.pressed.has('back') ? 1 : 0);
    if (ahead !== 0) {
      this.leftMs = Math.min(this.leftMs + passedMs, this.frameMs * MAX_FRAMES);
      void this.step(ahead);
    }
    this.frame = requestAnimationFrame((next) => this.go(next));
  }

  private async step(ahead: number): Promise<void> {
    const frames = Math.floor(this.leftMs / this.frameMs);
    if (this.isStepping || frames === 0) return;
    this.isStepping = true;
    this.leftMs -= frames * this.frameMs;
    const [x, z] = headingOf(this.headingDegrees());
    try {
      this.take(await this.compute.run('step-pack', { heading: [x * ahead, z * ahead], frames }).result);
    } catch (error) {
      this.failure.set(errorText(error));
      this.releaseAll();
    } finally {
      this.isStepping = false;
    }
  }

  private take(moment: LiveMoment): void {
    if (moment.atMs === 0) this.floor = moment.floorMetres;
    const lods = this.lods().slice();
    for (let i = 0; i < moment.changes.length; i += 2) lods[moment.changes[i]] = moment.changes[i + 1];
    this.lods.set(lods);
    this.moment.set(moment);
  }
}

/** A direction on the plan, of length 1. @param degrees clockwise from −Z */
export function headingOf(degrees: number): PlanPoint {
  const radians = (degrees * Math.PI) / 180;
  return [Math.sin(radians), -Math.cos(radians)];
}
