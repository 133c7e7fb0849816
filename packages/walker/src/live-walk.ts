import type { PlanPoint, Vector3 } from '@stravel/core';
import { DrawnChanges, EYE_METRES, STEP_METRES } from '@stravel/core/pack-walk';
import type { PackDrawing } from './draw-pack';
import type { PackLoads } from './pack-loads';
import type { PackLevelFiles } from './pack-level-files';
import type { PackObjects } from './pack-objects';

/** A moment of a walk that somebody steers. */
export interface LiveMoment {
  readonly atMs: number;
  readonly eye: Vector3;
  readonly floorMetres: number;
  readonly triangles: number;
  readonly drawCalls: number;
  readonly memoryBytes: number;
  /** Number of an object and the LOD that is drawn now, -1 for none: what differs from the moment before. */
  readonly changes: readonly number[];
  /** Numbers of the cells that are in memory. */
  readonly cells: readonly number[];
  /** Cells that came late until now. */
  readonly late: number;
}

/** A walk that somebody steers. The clock goes on by a frame of the device while it goes on, and stands still with it. */
export class LiveWalk {
  /** Where it went: its ends, and where it turned. */
  readonly knots: PlanPoint[];
  private frame = 0;
  private floor: number;
  private place: PlanPoint;
  private heading: PlanPoint = [0, 0];
  private readonly changes: DrawnChanges;
  /** Numbers of the objects that may carry. */
  private readonly carriers: readonly number[];
  /** Numbers of all cells; the resident chunk is the first, cells follow. */
  private readonly cells: readonly number[];

  constructor(
    at: Vector3,
    private readonly speedMetresPerSecond: number,
    private readonly frameMs: number,
    private readonly loads: PackLoads,
    private readonly drawing: PackDrawing,
    private readonly files: PackLevelFiles,
    private readonly objects: PackObjects,
  ) {
    this.place = [at[0], at[2]];
    this.floor = at[1];
    this.knots = [this.place];
    this.changes = new DrawnChanges(objects.all.length);
    this.cells = files.chunks.slice(1).map((_, cell) => cell);
    this.carriers = objects.all.flatMap(({ piece }, i) => (!piece || piece.of.collision ? [i] : []));
    loads.begin(at[0], at[1], at[2]);
  }

  /** What is there and drawn now. */
  now(): LiveMoment {
    const eye: Vector3 = [this.place[0], this.floor + EYE_METRES, this.place[1]];
    const drawn = this.drawing.draw(eye, (chunk) => this.loads.isThere(chunk), this.changes);
    return {
      atMs: this.frame * this.frameMs,
      eye,
      floorMetres: this.floor,
      triangles: drawn.triangles,
      drawCalls: drawn.drawCalls,
      memoryBytes: this.loads.memoryBytes,
      changes: this.changes.changes.splice(0)[0],
      cells: this.cells.filter((cell) => this.loads.isThere(cell + 1)),
      late: this.loads.late.length,
    };
  }

  /** Goes straight on for some frames. @param heading on the plan; of length 1 */
  step(heading: PlanPoint, frames: number): LiveMoment {
    const metres = (this.speedMetresPerSecond * this.frameMs) / 1000;
    if (heading[0] !== this.heading[0] || heading[1] !== this.heading[1]) this.knots.push(this.place);
    this.heading = heading;
    for (let i = 0; i < frames; i++) {
      const nowMs = this.frame * this.frameMs;
      this.loads.look(nowMs, [this.place[0], this.floor, this.place[1]]);
      this.loads.read(nowMs, nowMs + this.frameMs);
      this.place = [this.place[0] + heading[0] * metres, this.place[1] + heading[1] * metres];
      this.floor = this.floorBelow();
      this.frame++;
    }
    return this.now();
  }

  /** Where it went until now. */
  get way(): readonly PlanPoint[] {
    return [...this.knots, this.place];
  }

  /** The highest top of a block, or of the bounds of a piece with a collision, that is at most a step above the last floor; that where there is none. */
  private floorBelow(): number {
    const [x, z] = this.place;
    const limit = this.floor + STEP_METRES;
    let top = -Infinity;
    const { all, bounds } = this.objects;
    for (const i of this.carriers) {
      const { piece, chunk, number } = all[i];
      let found: number | undefined;
      if (!piece) found = topOfSolid(this.files.chunks[chunk]?.blocks[number]['planes'] as Plane[], x, z);
      else if (piece.of.collision) {
        const at = i * 6;
        const isUnder = bounds[at] <= x && x <= bounds[at + 3] && bounds[at + 2] <= z && z <= bounds[at + 5];
        if (isUnder) found = bounds[at + 4];
      }
      if (found !== undefined && found <= limit && found > top) top = found;
    }
    return top === -Infinity ? this.floor : top;
  }
}

type Plane = readonly [number, number, number, number];

/** Height at which an upright line leaves a convex solid; undefined where it misses it. */
function topOfSolid(planes: readonly Plane[], x: number, z: number): number | undefined {
  let [bottom, top] = [-Infinity, Infinity];
  for (const [nx, ny, nz, d] of planes) {
    const rest = d - nx * x - nz * z;
    if (ny > 0) top = Math.min(top, rest / ny);
    else if (ny < 0) bottom = Math.max(bottom, rest / ny);
    else if (rest < 0) return undefined;
  }
  return top >= bottom ? top : undefined;
}
