import { MathUtils } from 'three';

/** How high one's eyes are, metres. */
export const EYE_METRES = 1.6;
/** How fast one goes, metres, and turns, degrees, in a second. */
const METRES_PER_SECOND = 3;
const DEGREES_PER_SECOND = 90;
/** What is no higher than this one steps onto, metres. */
const STEP_METRES = 0.6;
/** How far one can look up and down, degrees. */
const MOST_PITCH_DEGREES = 80;

/** As far up or down as one can look, degrees. */
export function lookablePitch(degrees: number): number {
  return MathUtils.clamp(degrees, -MOST_PITCH_DEGREES, MOST_PITCH_DEGREES);
}

/** What held keys do. */
export type EyeMove = 'ahead' | 'back' | 'left' | 'right' | 'turn-left' | 'turn-right' | 'up' | 'down';

/** Where one stands, metres, and looks, degrees: yaw 0 is towards −Z, pitch is positive downwards. */
export interface Stand {
  readonly x: number;
  readonly floor: number;
  readonly z: number;
  readonly yawDegrees: number;
  readonly pitchDegrees: number;
}

/** Height of the floor under a point, metres; undefined where there is none. */
export type FloorBelow = (point: readonly [x: number, y: number, z: number]) => number | undefined;

/** Where one stands after some time. Walls stop nobody: where one can get to is for rehearsals. @param seconds since the last step */
export function stepped(at: Stand, held: ReadonlySet<EyeMove>, seconds: number, floorBelow: FloorBelow): Stand {
  const both = (one: EyeMove, other: EyeMove): number => Number(held.has(one)) - Number(held.has(other));
  const yawDegrees = at.yawDegrees + both('turn-left', 'turn-right') * DEGREES_PER_SECOND * seconds;
  const pitchDegrees = lookablePitch(at.pitchDegrees + both('down', 'up') * DEGREES_PER_SECOND * 0.5 * seconds);
  const [ahead, aside] = [both('ahead', 'back'), both('right', 'left')];
  const length = Math.hypot(ahead, aside);
  if (length === 0) return { ...at, yawDegrees, pitchDegrees };
  const metres = (METRES_PER_SECOND * seconds) / length;
  const yaw = MathUtils.degToRad(yawDegrees);
  const x = at.x + (-Math.sin(yaw) * ahead + Math.cos(yaw) * aside) * metres;
  const z = at.z + (-Math.cos(yaw) * ahead - Math.sin(yaw) * aside) * metres;
  return { x, z, floor: floorBelow([x, at.floor + STEP_METRES, z]) ?? at.floor, yawDegrees, pitchDegrees };
}
