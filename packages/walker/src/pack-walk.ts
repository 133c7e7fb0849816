import { CoreError, pathPoints, type Device, type PlanPoint, type RunContext, type Vector3 } from '@stravel/core';
import {
  DrawnChanges,
  EYE_METRES,
  stopFrames,
  walkPath,
  type RunCell,
  type WalkRun,
  type WalkStop,
} from '@stravel/core/pack-walk';
import {
  createStreamer,
  openPack,
  type Fields,
  type Pack,
  type PackLevel,
  type ReadFile,
  type Sight,
} from '@stravel/reader';
import { ALL_SAVINGS, PackDrawing, type PackDrawn, type Savings } from './draw-pack';
import { LiveWalk } from './live-walk';
import { PackLoads } from './pack-loads';
import { packObjects, type PackObjects } from './pack-objects';
import { packScene, type PackScene } from './pack-scene';
import { readLevelFiles, type PackLevelFiles } from './pack-level-files';

/** Frames between two looks at the cancel flag. */
const CHECK_FRAMES = 256;

/** A way as it is gone with a pack. */
export interface WalkRoute {
  readonly knots: readonly PlanPoint[];
  readonly speedMetresPerSecond: number;
  /** Height of the floor every so many metres. */
  readonly floors: { readonly spacingMetres: number; readonly heights: readonly number[] };
}

/** A walk measured with a pack. */
export interface MeasuredRun extends WalkRun {
  /** At each stop: triangles of all in memory, of the same objects at full LODs, and draw calls one by one. */
  readonly trianglesUnseen: readonly number[];
  readonly trianglesFull: readonly number[];
  readonly drawCallsAlone: readonly number[];
  /** Bytes of the whole level in memory. */
  readonly wholeBytes: number;
  /** At each stop: numbers of the cells that are in memory, with all that they need. */
  readonly cellsThere: readonly (readonly number[])[];
}

/** A way that the pack itself has. */
export interface PackWay {
  readonly name: string;
  readonly knots: readonly PlanPoint[];
  readonly floorMetres: number;
}

/** An object as a person is told of it. */
export interface NamedObject {
  readonly name: string;
  /** Middle of its bounds. */
  readonly at: Vector3;
}

/** A level of a pack, read for walks. */
export class PackWalk {
  private constructor(
    readonly pack: Pick<Pack, 'name' | 'edit' | 'stale'>,
    private readonly level: PackLevel,
    private readonly files: PackLevelFiles,
    private readonly sight: Sight,
    private readonly objects: PackObjects,
    readonly cells: readonly RunCell[],
    private readonly readyMetres: number,
  ) {}

  /** Reads all files of a level once. @throws PackError, CoreError 'GLB_UNREADABLE' */
  static async open(read: ReadFile, key: string, context: RunContext): Promise<PackWalk> {
    const pack = await openPack(read);
    const level = await pack.level(key);
    const streamer = await createStreamer(level);
    const files = await readLevelFiles(pack, level, streamer, (fraction) => {
      context.checkCancelled();
      context.progress(fraction, 'reading the pack');
    });
    const sight = await level.sight();
    const cells = await level.cells();
    return new PackWalk(
      pack,
      level,
      files,
      sight,
      packObjects(files, sight),
      (cells?.tables('cells') ?? []).map((cell) => ({
        key: cell.text('cell'),
        min: planPoint(cell.numbers('min', 2)),
        max: planPoint(cell.numbers('max', 2)),
      })),
      cells?.number('readyMetres') ?? 0,
    );
  }

  /** Files and bytes of the level, its kits among them. */
  get size(): { readonly files: number; readonly diskBytes: number } {
    return this.files.units.reduce(
      (sum, { files, diskBytes }) => ({ files: sum.files + files, diskBytes: sum.diskBytes + diskBytes }),
      this.files.own,
    );
  }

  /** Ids of its objects, in the order of their numbers. */
  get ids(): string[] {
    return this.objects.all.map(({ id }) => id);
  }

  /** What a view draws of it. */
  scene(): PackScene {
    return packScene(this.files, this.objects);
  }

  /** Some objects, by their ids; those that the pack does not have are left out. */
  named(ids: ReadonlySet<string>): Record<string, NamedObject> {
    const { all, bounds } = this.objects;
    return Object.fromEntries(
      all.flatMap(({ id, name }, i) =>
        ids.has(id) ? [[id, { name, at: middleOf(bounds.subarray(i * 6, i * 6 + 6)) }] as const] : [],
      ),
    );
  }

  /** Straight from the first spawn to the first exit, and along each path of the level. */
  get ways(): PackWay[] {
    const markers = this.level.items('markers');
    const placeOf = (kind: string): number[] | undefined =>
      markers.find((marker) => marker.text('kind') === kind)?.numbers('translation', 3);
    const [spawn, exit] = [placeOf('spawn'), placeOf('exit')];
    const straight = spawn && exit ? [wayOf('Spawn to exit', [spawn, exit])] : [];
    const paths = this.level.items('paths').map((path) => wayOf(path.text('name'), pointsOf(path)));
    return [...straight, ...paths].filter(({ knots }) => hasLength(knots));
  }

  /** Least and greatest x and z of all objects; of nothing a square of a metre. */
  get bounds(): readonly [PlanPoint, PlanPoint] {
    const { bounds } = this.objects;
    if (bounds.length === 0)
      return [
        [0, 0],
        [1, 1],
      ];
    const most = (k: number): number =>
      bounds.reduce((found, value, i) => (i % 6 === k && value > found ? value : found), -Infinity);
    const least = (k: number): number =>
      bounds.reduce((found, value, i) => (i % 6 === k && value < found ? value : found), Infinity);
    return [
      [least(0), least(2)],
      [most(3), most(5)],
    ];
  }

  /** Where somebody who steers begins: at the first spawn, else in the middle of what is placed. */
  get start(): Vector3 {
    const spawn = this.level.items('markers').find((marker) => marker.text('kind') === 'spawn');
    if (spawn) return vector(spawn.numbers('translation', 3));
    const { bounds } = this.objects;
    return bounds.length > 0 ? middleOf(bounds) : [0, 0, 0];
  }

  /** Walks a way on the frames of a device, however long this computer takes over one. @throws CoreError 'REHEARSAL_PATH', 'CANCELLED', PackError */
  async run(route: WalkRoute, device: Device, savings: Savings, context: RunContext): Promise<MeasuredRun> {
    const { speedMetresPerSecond, floors } = route;
    if (!(speedMetresPerSecond > 0))
      throw new CoreError('REHEARSAL_SPEED', `walk: the speed must be above 0 m/s, is ${speedMetresPerSecond}`);
    const path = walkPath(route.knots);
    const frameMs = 1000 / device.framesPerSecond;
    const durationMs = (path.lengthMetres / speedMetresPerSecond) * 1000;
    const frames = Math.ceil(durationMs / frameMs);
    const { loads, drawing } = await this.begin(device, savings);
    const changes = new DrawnChanges(this.objects.all.length);
    const isThere = (chunk: number): boolean => loads.isThere(chunk);
    const wanted = stopFrames(path.lengthMetres, speedMetresPerSecond, frameMs);
    const stops: WalkStop[] = [];
    const drawn: PackDrawn[] = [];
    const cellsThere: number[][] = [];
    // The resident chunk is the first, cells follow in order.
    const cellNumbers = this.cells.map((_, i) => i);
    for (let frame = 0; frame < frames; frame++) {
      if (frame % CHECK_FRAMES === 0) {
        context.checkCancelled();
        context.progress(frame / frames, 'walking');
      }
      const nowMs = frame * frameMs;
      const metres = (nowMs / 1000) * speedMetresPerSecond;
      const [x, z] = path.at(metres);
      const floor = floors.heights[Math.min(floors.heights.length - 1, Math.floor(metres / floors.spacingMetres))];
      if (frame === 0) loads.begin(x, floor, z);
      loads.look(nowMs, [x, floor, z]);
      if (frame === wanted[stops.length]) {
        const eye: Vector3 = [x, floor + EYE_METRES, z];
        stops.push({ frame, metres, eye });
        drawn.push(drawing.draw(eye, isThere, changes));
        cellsThere.push(cellNumbers.filter((cell) => isThere(cell + 1)));
      }
      loads.read(nowMs, nowMs + frameMs);
    }
    loads.end(durationMs);
    return {
      lengthMetres: path.lengthMetres,
      durationMs,
      frameMs,
      frames,
      start: loads.start,
      timesMs: loads.timesMs,
      residentBytes: loads.residentBytes,
      loads: loads.loads,
      late: loads.late,
      stops,
      objects: this.ids,
      changes: changes.changes,
      triangles: drawn.map((one) => one.triangles),
      drawCalls: drawn.map((one) => one.drawCalls),
      trianglesUnseen: drawn.map((one) => one.trianglesUnseen),
      trianglesFull: drawn.map((one) => one.trianglesFull),
      drawCallsAlone: drawn.map((one) => one.drawCallsAlone),
      cellsThere,
      wholeBytes: this.files.units.reduce((sum, { memoryBytes }) => sum + memoryBytes, 0),
    };
  }

  /** Begins a walk that somebody steers. @param at where, on the floor @throws CoreError 'REHEARSAL_SPEED', PackError */
  async steer(at: Vector3, speedMetresPerSecond: number, device: Device): Promise<LiveWalk> {
    const { loads, drawing } = await this.begin(device, ALL_SAVINGS);
    return new LiveWalk(
      at,
      speedMetresPerSecond,
      1000 / device.framesPerSecond,
      loads,
      drawing,
      this.files,
      this.objects,
    );
  }

  private async begin(device: Device, savings: Savings): Promise<{ loads: PackLoads; drawing: PackDrawing }> {
    const streamer = await createStreamer(this.level);
    const rule = { readyMetres: this.readyMetres };
    return {
      loads: new PackLoads(this.files, streamer, rule, device, savings.cells),
      drawing: new PackDrawing(this.objects, this.sight, savings),
    };
  }
}

/** Points along a path of a level, close enough to walk it. */
function pointsOf(path: Fields): Vector3[] {
  const knots = path.tables('knots').map((knot, i) => ({
    id: `${i}`,
    position: vector(knot.numbers('position', 3)),
    handle: knot.has('handle') && knot.json['handle'] !== null ? vector(knot.numbers('handle', 3)) : null,
    widthMetres: 0,
    tags: [],
  }));
  const form = path.text('form') === 'curve' ? 'curve' : 'polyline';
  const points = pathPoints({ form, closed: path.flag('closed'), knots });
  return Array.from({ length: points.length / 3 }, (_one, i) => vector([...points.subarray(i * 3, i * 3 + 3)]));
}

function wayOf(name: string, places: readonly (readonly number[])[]): PackWay {
  return { name, knots: places.map(([x, , z]) => [x, z]), floorMetres: places.at(0)?.[1] ?? 0 };
}

function hasLength(knots: readonly PlanPoint[]): boolean {
  return knots.some(([x, z]) => x !== knots[0][0] || z !== knots[0][1]);
}

function middleOf(box: ArrayLike<number>): Vector3 {
  return [(box[0] + box[3]) / 2, (box[1] + box[4]) / 2, (box[2] + box[5]) / 2];
}

function vector([x, y, z]: readonly number[]): Vector3 {
  return [x, y, z];
}

function planPoint([x, z]: readonly number[]): PlanPoint {
  return [x, z];
}
