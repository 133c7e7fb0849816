import { signal } from '@angular/core';
import type { ModelCamera } from '../plate-cameras';
import { stepped, type FloorBelow, type Stand, type EyeMove } from './steps';

const MOVES: ReadonlyMap<string, EyeMove> = new Map([
  ['ArrowUp', 'ahead'],
  ['ArrowDown', 'back'],
  ['ArrowLeft', 'turn-left'],
  ['ArrowRight', 'turn-right'],
  ['w', 'ahead'],
  ['s', 'back'],
  ['a', 'left'],
  ['d', 'right'],
  ['PageUp', 'up'],
  ['PageDown', 'down'],
]);
/** Letters count with Shift and Caps Lock too. */
const moveOf = (key: string): EyeMove | undefined => MOVES.get(key.length === 1 ? key.toLowerCase() : key);

/** A page that was away takes no long step, seconds. */
const LONGEST_SECONDS = 0.1;

/** Goes through the model with keys, at the height of one's eyes. */
export class EyeLevel {
  readonly isOn = signal(false);
  private readonly held = new Set<EyeMove>();
  private at: Stand | undefined;
  private last = 0;
  private frame = 0;

  constructor(
    private readonly camera: ModelCamera,
    private readonly floorBelow: FloorBelow,
    private readonly moved: () => void,
  ) {}

  /** Stands up on the floor at or below a point. */
  begin([x, y, z]: readonly [number, number, number]): void {
    const { yawDegrees } = this.camera;
    this.at = { x, floor: this.floorBelow([x, y, z]) ?? 0, z, yawDegrees, pitchDegrees: 0 };
    this.isOn.set(true);
    this.look();
  }

  end(): void {
    if (!this.isOn()) return;
    this.isOn.set(false);
    this.stop();
    this.camera.turnAbout();
    this.moved();
  }

  /** @returns whether the key is one for eyes */
  press(key: string): boolean {
    const move = moveOf(key);
    if (!move || !this.isOn()) return false;
    this.held.add(move);
    if (this.frame === 0) {
      this.last = performance.now();
      this.frame = requestAnimationFrame(() => this.step());
    }
    return true;
  }

  letGo(key: string): void {
    const move = moveOf(key);
    if (move) this.held.delete(move);
  }

  /** Lets go of all keys. */
  stop(): void {
    this.held.clear();
    cancelAnimationFrame(this.frame);
    this.frame = 0;
  }

  private step(): void {
    this.frame = 0;
    if (!this.at || this.held.size === 0) return;
    const now = performance.now();
    const { yawDegrees, pitchDegrees } = this.camera;
    // A drag has turned the look meanwhile.
    this.at = stepped(
      { ...this.at, yawDegrees, pitchDegrees },
      this.held,
      Math.min(LONGEST_SECONDS, (now - this.last) / 1000),
      this.floorBelow,
    );
    this.last = now;
    this.look();
    this.frame = requestAnimationFrame(() => this.step());
  }

  private look(): void {
    if (this.at) this.camera.stand(this.at);
    this.moved();
  }
}
