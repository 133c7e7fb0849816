import type { LateCell, WalkLoad } from '../../cells/rehearsal-result';
import type { PlanPoint, Vector3 } from '../../model/vector';
import type { Rehearsal } from '../../model/rehearsal';

/** Height of the eye above the floor, metres. */
export const EYE_METRES = 1.6;
/** Most places of a walk at which what is drawn is looked at. */
const MAX_STOPS = 2000;

/** A way through a level, and the device that goes it. */
export type Way = Pick<Rehearsal, 'knots' | 'floorMetres' | 'speedMetresPerSecond' | 'device'>;

/** A frame of a walk at which what is drawn is looked at. */
export interface WalkStop {
  readonly frame: number;
  readonly metres: number;
  /** Of the eye. */
  readonly eye: Vector3;
}

/** A cell or a file of meshes on its way through the disk. */
export type RunLoad = Omit<WalkLoad, 'what' | 'number'> & {
  /** Key of the cell; id of the kit, or those of kit and piece with a slash between. */
  readonly key: string;
};

/** A walk, forecast from a collection or measured with a pack: what was loaded when, and what was drawn. */
export interface WalkRun {
  readonly lengthMetres: number;
  readonly durationMs: number;
  readonly frameMs: number;
  readonly frames: number;
  readonly start: { readonly files: number; readonly loadMs: number };
  /** Moments at which resident bytes changed, and the bytes from then on. */
  readonly timesMs: readonly number[];
  readonly residentBytes: readonly number[];
  readonly loads: readonly RunLoad[];
  readonly late: readonly Omit<LateCell, 'cell'>[];
  readonly stops: readonly WalkStop[];
  /** Ids of the objects that `changes` name by their numbers. */
  readonly objects: readonly string[];
  /** What differs at each stop from the one before: number of an object, then the LOD that is drawn now, -1 for none. */
  readonly changes: readonly (readonly number[])[];
  readonly triangles: readonly number[];
  readonly drawCalls: readonly number[];
}

/** A cell on the plan. */
export interface RunCell {
  readonly key: string;
  readonly min: PlanPoint;
  readonly max: PlanPoint;
}

/** The frames at which a walk is looked at: each the first after another metre, at most 2,000. */
export function stopFrames(lengthMetres: number, speedMetresPerSecond: number, frameMs: number): number[] {
  const spacing = Math.max(1, lengthMetres / MAX_STOPS);
  const frames = Math.ceil((lengthMetres / speedMetresPerSecond) * (1000 / frameMs));
  const found: number[] = [];
  for (let stop = 0; ; stop++) {
    const frame = Math.max(0, Math.ceil((stop * spacing) / speedMetresPerSecond / (frameMs / 1000) - 1e-9));
    if (frame >= frames) return found;
    if (frame !== found.at(-1)) found.push(frame);
  }
}

/** Keeps what is drawn from stop to stop by what differs. */
export class DrawnChanges {
  readonly changes: number[][] = [];
  private readonly now: Int16Array;
  private readonly next: Int16Array;

  constructor(objects: number) {
    this.now = new Int16Array(objects).fill(-1);
    this.next = new Int16Array(objects).fill(-1);
  }

  /** Says which LOD of an object is drawn at the stop that comes. */
  draw(object: number, lod: number): void {
    this.next[object] = lod;
  }

  /** Ends a stop: what was not drawn for it is not drawn any more. */
  stop(): void {
    const { now, next } = this;
    const differing: number[] = [];
    for (let object = 0; object < now.length; object++) {
      if (now[object] !== next[object]) differing.push(object, next[object]);
      now[object] = next[object];
      next[object] = -1;
    }
    this.changes.push(differing);
  }
}

/** The LOD that is drawn of each object at a stop, -1 for none. */
export function lodsAtStop({ objects, changes }: Pick<WalkRun, 'objects' | 'changes'>, stop: number): Int16Array {
  const lods = new Int16Array(objects.length).fill(-1);
  for (const differing of changes.slice(0, stop + 1))
    for (let i = 0; i < differing.length; i += 2) lods[differing[i]] = differing[i + 1];
  return lods;
}
