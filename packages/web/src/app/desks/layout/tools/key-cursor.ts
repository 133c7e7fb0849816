import { toMicro, type PlanPoint } from '@stravel/core';
import type { PlateDrawing } from '../../../plate/plate-drawing';
import type { Gesture, Hit } from '../plan/gesture';
import { drawLabel, takePen } from '../plan/plan-drawing';

/** Half the length of its arms, pixels. */
const ARM_PIXELS = 12;

/**
 * Works a gesture of the plan without a pointer: a cursor that goes by steps, a corner by Enter, a length by its number. Two
 * numbers are lengths along X and Z.
 */
export class KeyCursor {
  private at: PlanPoint | undefined;
  /** Where the last corner was set, or the drag began. */
  private last: PlanPoint | undefined;
  private typed = '';
  private isPressed = false;
  private metresPerPixel = 0.05;

  get isOn(): boolean {
    return this.at !== undefined;
  }

  /** Where it is; undefined while it is off. */
  get place(): PlanPoint | undefined {
    return this.target();
  }

  begin(at: PlanPoint, metresPerPixel: number): void {
    this.at = at;
    this.metresPerPixel = metresPerPixel;
    this.last = undefined;
    this.typed = '';
  }

  end(): void {
    this.at = this.last = undefined;
    this.typed = '';
    this.isPressed = false;
  }

  step(gesture: Gesture, dx: number, dz: number): void {
    if (!this.at) return;
    this.at = [toMicro(this.at[0] + dx), toMicro(this.at[1] + dz)];
    gesture.move(this.hit());
  }

  /** A key of a length: digits, a point, and what stands between two. @returns whether it was one */
  type(gesture: Gesture, key: string): boolean {
    if (!this.at || !this.last) return false;
    if (key === 'Backspace' && this.typed !== '') this.typed = this.typed.slice(0, -1);
    else if (/^[0-9.]$/.test(key) || (this.typed !== '' && /^[ x,]$/.test(key))) this.typed += key === ',' ? ' ' : key;
    else return false;
    gesture.move(this.hit());
    return true;
  }

  /** Sets a corner, or presses and then lets go of what is dragged; once more in the same place ends what is made by corners. */
  enter(gesture: Gesture): void {
    const hit = this.hit();
    const [last, target] = [this.last, hit.at];
    if (gesture.clicks !== undefined) {
      if (last && last[0] === target[0] && last[1] === target[1]) {
        gesture.finish();
        this.last = undefined;
      } else {
        gesture.down(hit);
        gesture.up(hit);
        this.last = target;
      }
    } else if (this.isPressed) {
      gesture.move(hit);
      gesture.up(hit);
      this.isPressed = false;
      this.last = undefined;
    } else {
      gesture.down(hit);
      this.isPressed = true;
      this.last = target;
    }
    this.at = target;
    this.typed = '';
  }

  /** Lets go of what is pressed. */
  release(): void {
    this.isPressed = false;
    this.last = undefined;
    this.typed = '';
  }

  draw(drawing: PlateDrawing): void {
    const at = this.target();
    const p = at && drawing.at(at[0], 0, at[1]);
    if (!at || !p) return;
    const { context } = drawing;
    takePen(drawing);
    context.beginPath();
    for (const [x, y] of [
      [ARM_PIXELS, 0],
      [0, ARM_PIXELS],
    ]) {
      context.moveTo(p[0] - x, p[1] - y);
      context.lineTo(p[0] + x, p[1] + y);
    }
    context.stroke();
    drawLabel(drawing, at, this.typed === '' ? `${at[0]}, ${at[1]}` : `${this.typed} m`);
  }

  private hit(): Hit {
    const at = this.target() ?? [0, 0];
    return { at, pointer: at, metresPerPixel: this.metresPerPixel, adds: false, isFree: false, things: () => [] };
  }

  /** Where it is: at the length that was typed from the last corner, on the way to where it went. */
  private target(): PlanPoint | undefined {
    const { at, last } = this;
    if (!at || !last) return at;
    const lengths = this.typed.split(/[ x]+/).filter(Boolean).map(Number);
    if (lengths.length === 0 || lengths.some((length) => !Number.isFinite(length))) return at;
    const way: PlanPoint = [at[0] - last[0], at[1] - last[1]];
    if (lengths.length > 1) {
      const [x, z] = lengths;
      return [toMicro(last[0] + (way[0] < 0 ? -x : x)), toMicro(last[1] + (way[1] < 0 ? -z : z))];
    }
    const far = Math.hypot(...way);
    const [ux, uz] = far === 0 ? [1, 0] : [way[0] / far, way[1] / far];
    return [toMicro(last[0] + ux * lengths[0]), toMicro(last[1] + uz * lengths[0])];
  }
}
