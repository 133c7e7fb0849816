import { loadTime, type LoadParts } from '../budget/cost-model';
import type { RunContext } from '../context/run-context';
import { CoreError } from '../errors';
import type { CellGrid } from '../model/cell-grid';
import type { Device } from '../model/device';
import type { PlanPoint, Vector3 } from '../model/vector';
import { RESIDENT, type CutLevel } from './cut-level';
import { FOOTING_METRES, type Footing } from './footing';
import { ReadQueue, type FileLoad, type LoadFile } from './read-queue';
import type { FootingGap, LateCell, RehearsalFigures, WalkLoad } from './rehearsal-result';
import type { HeldCell } from './volume-rules';
import type { WalkPath } from './walk-path';

/** Frames between two looks at the cancel flag. */
const CHECK_FRAMES = 4096;
/** Longest walk, frames; a day at 60 frames a second. */
const MAX_FRAMES = 5200000;

/** What must be loaded before something carries. */
export interface CarrierFiles {
  readonly cell: number;
  /** Number of the file with its mesh; undefined where it needs none. */
  readonly meshFile: number | undefined;
}

/** What a walk is simulated from. */
export interface WalkInput {
  readonly cut: Pick<CutLevel, 'cells' | 'meshFiles' | 'resident'>;
  readonly grid: Pick<CellGrid, 'sizeMetres' | 'origin' | 'loadMetres' | 'dropMetres' | 'readyMetres'>;
  readonly path: WalkPath;
  readonly speedMetresPerSecond: number;
  readonly device: Device;
  /** What is read of the level before its cells, beside its resident chunk. */
  readonly levelFiles: Omit<LoadParts, 'memoryBytes'>;
  /** What holds the foot, and what must be loaded for each that carries; undefined leaves it unwatched. */
  readonly footing?: { readonly found: Footing; readonly files: readonly CarrierFiles[] };
  /** What volumes load on the way, in order of `fromMs`. */
  readonly held?: readonly HeldCell[];
}

export interface Walk {
  readonly timesMs: number[];
  readonly residentBytes: number[];
  readonly loads: WalkLoad[];
  readonly late: LateCell[];
  readonly gaps: FootingGap[];
  readonly track: PlanPoint[];
  readonly figures: RehearsalFigures;
}

/**
 * Walks a path and loads cells by the load rule: those that come near, and those that a volume holds. Before the first step everything
 * near the start and all that is held there is loaded. A cell is there when its own file and all its files of meshes are; one of those is loaded with the
 * first cell that needs it and dropped with the last.
 * @throws CoreError 'REHEARSAL_SPEED', 'REHEARSAL_DEVICE', 'REHEARSAL_LONG', 'CANCELLED'
 * Cost: frames times the cells within `dropMetres`.
 */
export function rehearse(input: WalkInput, context: RunContext, watch?: WatchWalk): Walk {
  checkWalk(input);
  return new Walker(input).walk(context, watch);
}

/** Is told of each frame, when what is needed was asked for. @param isThere whether a cell is in memory, by its number */
export type WatchWalk = (frame: number, isThere: (cell: number) => boolean) => void;

function checkWalk({ device, speedMetresPerSecond, path }: WalkInput): void {
  if (!(speedMetresPerSecond > 0) || !Number.isFinite(speedMetresPerSecond)) {
    throw new CoreError('REHEARSAL_SPEED', `rehearsal: the speed must be above 0 m/s, is ${speedMetresPerSecond}`);
  }
  for (const key of [
    'diskBytesPerSecond',
    'unpackBytesPerSecond',
    'activationSliceMs',
    'activationBytesPerMs',
    'framesPerSecond',
  ] as const) {
    if (!(device[key] > 0))
      throw new CoreError(
        'REHEARSAL_DEVICE',
        `rehearsal: ${key} of ${device.name} must be above 0, is ${device[key]}; nothing would ever load`,
        { device: device.id },
      );
  }
  const frames = (path.lengthMetres / speedMetresPerSecond) * device.framesPerSecond;
  if (frames > MAX_FRAMES) {
    throw new CoreError(
      'REHEARSAL_LONG',
      `rehearsal: takes at most ${MAX_FRAMES} frames, ${path.lengthMetres.toFixed(0)} m at ${speedMetresPerSecond} m/s are ${Math.ceil(frames)}`,
    );
  }
}

class Walker {
  private readonly files: LoadFile[];
  private readonly queue: ReadQueue;
  private readonly meshBase: number;
  /** Whether a file is in memory. */
  private readonly isReady: Uint8Array;
  /** Cells that are wanted: asked for, or there. */
  private readonly wanted = new Set<number>();
  private readonly meshUsers: Int32Array;
  private readonly residentMeshes: ReadonlySet<number>;
  /** Cells that need each file of meshes. */
  private readonly cellsOf: number[][];
  /** How many volumes hold each cell now. */
  private readonly holders: Int32Array;
  private readonly held: readonly HeldCell[];
  /** Number of the next of `held` that begins. */
  private nextHeld = 0;
  /** The same in order of `toMs`, and the number of the next that ends. */
  private readonly heldToEnd: readonly HeldCell[];
  private nextEnd = 0;
  private readonly neededMs: Float64Array;
  private readonly neededAt: Vector3[] = [];
  private readonly numberAt = new Map<number, number>();
  private readonly openLoads = new Map<number, number>();
  private bytes = 0;
  private readBytes = 0;
  private diskBusyMs = 0;
  private drops = 0;
  private peak = { bytes: 0, ms: 0 };
  private readonly out: Omit<Walk, 'figures'> = {
    timesMs: [],
    residentBytes: [],
    loads: [],
    late: [],
    gaps: [],
    track: [],
  };
  private gap: { -readonly [K in keyof FootingGap]: FootingGap[K] } | undefined;
  private place: [number, number] = [0, 0];
  private floor = 0;
  /** Number of the next place of the path at which the foot is looked at. */
  private nextLook = 0;

  constructor(private readonly input: WalkInput) {
    const { cells, meshFiles } = input.cut;
    this.meshBase = cells.length;
    this.files = [...cells, ...meshFiles].map(({ files, diskBytes, memoryBytes }) => ({
      files,
      diskBytes,
      memoryBytes,
    }));
    this.queue = new ReadQueue(this.files, input.device);
    this.isReady = new Uint8Array(this.files.length);
    this.meshUsers = new Int32Array(meshFiles.length);
    this.residentMeshes = new Set(input.cut.resident.meshFiles);
    this.cellsOf = meshFiles.map(() => []);
    cells.forEach((cell, number) => cell.meshFiles.forEach((file) => this.cellsOf[file].push(number)));
    this.holders = new Int32Array(cells.length);
    this.held = input.held ?? [];
    this.heldToEnd = [...this.held].sort((a, b) => a.toMs - b.toMs);
    this.neededMs = new Float64Array(cells.length).fill(NaN);
    cells.forEach(({ min }, i) =>
      this.numberAt.set(
        this.slot(
          this.column(min[0] + input.grid.sizeMetres / 2, 0),
          this.column(min[1] + input.grid.sizeMetres / 2, 1),
        ),
        i,
      ),
    );
  }

  walk(context: RunContext, watch?: WatchWalk): Walk {
    const { path, speedMetresPerSecond, device } = this.input;
    const durationMs = (path.lengthMetres / speedMetresPerSecond) * 1000;
    const frameMs = 1000 / device.framesPerSecond;
    const frames = Math.ceil(durationMs / frameMs);
    const start = this.loadStart();
    const isThere = (cell: number): boolean => this.isThere(cell);
    for (let frame = 0; frame < frames; frame++) {
      if (frame % CHECK_FRAMES === 0) {
        context.checkCancelled();
        context.progress(frame / frames, 'walking');
      }
      const nowMs = frame * frameMs;
      const metres = (nowMs / 1000) * speedMetresPerSecond;
      this.place = path.at(metres);
      if (this.out.track.length <= nowMs / 1000) this.out.track.push(this.place);
      // What is crossed between two frames counts as well.
      this.watchUpTo(metres);
      this.look(nowMs);
      watch?.(frame, isThere);
      for (const load of this.queue.frame(nowMs, nowMs + frameMs, (waiting) => this.nearest(waiting))) this.take(load);
    }
    this.end(durationMs);
    const { loads } = this.out;
    return {
      ...this.out,
      figures: {
        lengthMetres: path.lengthMetres,
        durationMs,
        frames,
        ...start,
        loads: loads.length,
        drops: this.drops,
        readBytes: this.readBytes,
        peakBytes: this.peak.bytes,
        peakMs: this.peak.ms,
        diskBusyShare: durationMs > 0 ? Math.min(1, this.diskBusyMs / durationMs) : 0,
      },
    };
  }

  /** Loads what is near the start, the resident part and its meshes, before the first step. */
  private loadStart(): { startFiles: number; startLoadMs: number } {
    const { path, grid, cut, device, levelFiles } = this.input;
    this.place = path.at(0);
    for (const file of cut.resident.meshFiles) this.meshUsers[file]++;
    for (const cell of new Set([...this.cellsWithin(grid.loadMetres), ...this.holdUpTo(0)])) {
      this.wanted.add(cell);
      this.isReady[cell] = 1;
      for (const file of cut.cells[cell].meshFiles) this.meshUsers[file]++;
    }
    this.meshUsers.forEach((users, file) => (this.isReady[this.meshBase + file] = users > 0 ? 1 : 0));
    let [memoryBytes, diskBytes, files] = [
      cut.resident.memoryBytes,
      levelFiles.diskBytes + cut.resident.diskBytes,
      levelFiles.files + cut.resident.files,
    ];
    this.isReady.forEach((ready, file) => {
      if (!ready) return;
      files += this.files[file].files;
      memoryBytes += this.files[file].memoryBytes;
      diskBytes += this.files[file].diskBytes;
    });
    this.setBytes(0, memoryBytes);
    return { startFiles: files, startLoadMs: loadTime({ files, diskBytes, memoryBytes }, device).totalMs };
  }

  /** Asks for what has come near, drops what has gone far, notes what should be there and is not. */
  private look(nowMs: number): void {
    const { grid } = this.input;
    const entered = this.holdUpTo(nowMs);
    for (const cell of this.wanted)
      if (this.holders[cell] === 0 && this.distance(cell) > grid.dropMetres) this.drop(cell, nowMs);
    for (const cell of entered) if (!this.wanted.has(cell)) this.want(cell, nowMs);
    for (const cell of this.cellsWithin(grid.loadMetres)) {
      if (!this.wanted.has(cell)) this.want(cell, nowMs);
      if (!Number.isNaN(this.neededMs[cell]) || this.distance(cell) > grid.readyMetres || this.isThere(cell)) continue;
      this.neededMs[cell] = nowMs;
      this.neededAt[cell] = [this.place[0], this.floor, this.place[1]];
    }
  }

  /** The cells of volumes that were entered by now, though one may have left them again since the last look. */
  private holdUpTo(nowMs: number): number[] {
    const entered: number[] = [];
    for (; this.held[this.nextHeld]?.fromMs <= nowMs; this.nextHeld++) {
      const { cell } = this.held[this.nextHeld];
      entered.push(cell);
      this.holders[cell]++;
    }
    for (; this.heldToEnd[this.nextEnd]?.toMs <= nowMs; this.nextEnd++)
      this.holders[this.heldToEnd[this.nextEnd].cell]--;
    return entered;
  }

  private want(cell: number, nowMs: number): void {
    this.wanted.add(cell);
    for (const file of this.input.cut.cells[cell].meshFiles) {
      this.meshUsers[file]++;
      if (!this.isReady[this.meshBase + file]) this.queue.ask(this.meshBase + file, nowMs);
    }
    if (!this.isReady[cell]) this.queue.ask(cell, nowMs);
  }

  private drop(cell: number, nowMs: number): void {
    this.wanted.delete(cell);
    if (!Number.isNaN(this.neededMs[cell])) this.noteLate(cell, null, nowMs);
    this.release(cell, nowMs);
    for (const file of this.input.cut.cells[cell].meshFiles) {
      if (--this.meshUsers[file] > 0) continue;
      this.release(this.meshBase + file, nowMs);
    }
  }

  private release(file: number, nowMs: number): void {
    if (this.queue.takeBack(file) || !this.isReady[file]) return;
    this.isReady[file] = 0;
    this.drops++;
    const open = this.openLoads.get(file);
    if (open !== undefined) this.out.loads[open] = { ...this.out.loads[open], droppedMs: nowMs };
    this.openLoads.delete(file);
    this.setBytes(nowMs, this.bytes - this.files[file].memoryBytes);
  }

  /** A file has come; what nobody wants any more goes at once. */
  private take(load: FileLoad): void {
    const { cut } = this.input;
    const { file, readyMs } = load;
    const isCell = file < this.meshBase;
    const number = isCell ? file : file - this.meshBase;
    this.readBytes += this.files[file].diskBytes;
    this.diskBusyMs += load.readEndMs - load.readStartMs;
    const isWanted = isCell ? this.wanted.has(file) : this.meshUsers[number] > 0;
    const { diskBytes, memoryBytes } = this.files[file];
    const { askedMs, readStartMs, readEndMs, unpackEndMs } = load;
    this.out.loads.push({
      what: isCell ? 'cell' : 'meshes',
      number,
      name: isCell ? cut.cells[number].key : cut.meshFiles[number].name,
      diskBytes,
      memoryBytes,
      askedMs,
      readStartMs,
      readEndMs,
      unpackEndMs,
      readyMs,
      droppedMs: isWanted ? null : readyMs,
    });
    if (!isWanted || this.isReady[file]) return;
    this.isReady[file] = 1;
    this.openLoads.set(file, this.out.loads.length - 1);
    this.setBytes(readyMs, this.bytes + memoryBytes);
    const done = isCell ? [file] : this.cellsOf[number].filter((cell) => this.wanted.has(cell));
    for (const cell of done)
      if (!Number.isNaN(this.neededMs[cell]) && this.isThere(cell)) this.noteLate(cell, readyMs, readyMs);
  }

  private noteLate(cell: number, readyMs: number | null, untilMs: number): void {
    const neededMs = this.neededMs[cell];
    this.out.late.push({
      cell,
      key: this.input.cut.cells[cell].key,
      neededMs,
      readyMs,
      lateMs: untilMs - neededMs,
      at: this.neededAt[cell],
    });
    this.neededMs[cell] = NaN;
  }

  /** Watches what is underfoot at every look of the path that the walk has come past. */
  private watchUpTo(metres: number): void {
    const watched = this.input.footing;
    if (!watched) return;
    const last = Math.min(watched.found.heights.length - 1, Math.floor(metres / FOOTING_METRES));
    for (; this.nextLook <= last; this.nextLook++) {
      const at = this.nextLook * FOOTING_METRES;
      this.watchFooting(watched, this.nextLook, this.input.path.at(at), (at / this.input.speedMetresPerSecond) * 1000);
    }
  }

  private watchFooting(
    watched: NonNullable<WalkInput['footing']>,
    look: number,
    [x, z]: PlanPoint,
    nowMs: number,
  ): void {
    this.floor = watched.found.heights[look];
    const holding = watched.found.holding[look];
    const isHeld = holding.some((carrier) => {
      const { cell, meshFile } = watched.files[carrier];
      return (
        (cell === RESIDENT || this.isReady[cell] === 1) &&
        (meshFile === undefined || this.isReady[this.meshBase + meshFile] === 1)
      );
    });
    const at: Vector3 = [x, this.floor, z];
    const cause = holding.length > 0 ? 'late' : 'none';
    if (this.gap && (isHeld || this.gap.cause !== cause)) this.endGap(nowMs, at);
    if (isHeld) return;
    // What is resident has its meshes from the start: what is late is of a cell.
    const late = holding.map((carrier) => watched.files[carrier].cell).find((cell) => cell !== RESIDENT);
    const cell = late === undefined ? null : this.input.cut.cells[late].key;
    this.gap ??= { cause, fromMs: nowMs, toMs: nowMs, from: at, to: at, cell };
  }

  private endGap(nowMs: number, at: Vector3): void {
    if (this.gap) this.out.gaps.push({ ...this.gap, toMs: nowMs, to: at });
    this.gap = undefined;
  }

  private end(durationMs: number): void {
    this.watchUpTo(this.input.path.lengthMetres);
    this.endGap(durationMs, [this.place[0], this.floor, this.place[1]]);
    this.neededMs.forEach((needed, cell) => {
      if (!Number.isNaN(needed)) this.noteLate(cell, null, durationMs);
    });
    this.setBytes(durationMs, this.bytes);
  }

  /**
   * The waiting file that is most urgent: a cell by its distance, a file of meshes by the nearest cell that needs it, whether that waits
   * itself, is on its way or there. At one distance meshes go first, as their cells are of no use without them.
   */
  private nearest(waiting: ReadonlyMap<number, number>): number {
    let best = -1;
    let least = Infinity;
    for (const file of waiting.keys()) {
      const isMeshes = file >= this.meshBase;
      const distance = isMeshes ? this.distanceOfMeshes(file - this.meshBase) : this.distance(file);
      const isBetter =
        best < 0 ||
        distance < least ||
        (distance === least && (isMeshes === best >= this.meshBase ? file < best : isMeshes));
      if (isBetter) [best, least] = [file, distance];
    }
    return best;
  }

  /** Distance of the nearest wanted cell that needs a file of meshes; 0 for what the resident part needs. */
  private distanceOfMeshes(file: number): number {
    if (this.residentMeshes.has(file)) return 0;
    let least = Infinity;
    for (const cell of this.cellsOf[file]) if (this.wanted.has(cell)) least = Math.min(least, this.distance(cell));
    return least;
  }

  private isThere(cell: number): boolean {
    return (
      this.isReady[cell] === 1 &&
      this.input.cut.cells[cell].meshFiles.every((file) => this.isReady[this.meshBase + file] === 1)
    );
  }

  private distance(cell: number): number {
    const { min, max } = this.input.cut.cells[cell];
    const dx = Math.max(min[0] - this.place[0], 0, this.place[0] - max[0]);
    const dz = Math.max(min[1] - this.place[1], 0, this.place[1] - max[1]);
    return Math.sqrt(dx * dx + dz * dz);
  }

  private cellsWithin(metres: number): number[] {
    const [x, z] = this.place;
    const found: number[] = [];
    // A cell that ends just at the distance counts as well, on either side.
    for (let column = this.column(x - metres, 0) - 1; column <= this.column(x + metres, 0); column++) {
      for (let row = this.column(z - metres, 1) - 1; row <= this.column(z + metres, 1); row++) {
        const cell = this.numberAt.get(this.slot(column, row));
        if (cell !== undefined && this.distance(cell) <= metres) found.push(cell);
      }
    }
    return found;
  }

  private column(value: number, axis: 0 | 1): number {
    return Math.floor((value - this.input.grid.origin[axis]) / this.input.grid.sizeMetres);
  }

  /** One number for a column and a row; both lie within a million of 0. */
  private slot(column: number, row: number): number {
    return column * 2097152 + row;
  }

  private setBytes(nowMs: number, bytes: number): void {
    this.bytes = bytes;
    if (bytes > this.peak.bytes) this.peak = { bytes, ms: nowMs };
    const { timesMs, residentBytes } = this.out;
    if (timesMs.at(-1) === nowMs) residentBytes[residentBytes.length - 1] = bytes;
    else {
      timesMs.push(nowMs);
      residentBytes.push(bytes);
    }
  }
}
