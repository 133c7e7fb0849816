import { loadTime, type Device, type LateCell, type Vector3 } from '@stravel/core';
import { ReadQueue, type FileLoad, type RunLoad } from '@stravel/core/pack-walk';
import type { Streamer } from '@stravel/reader';
import type { PackLevelFiles } from './pack-level-files';

/** When cells have to be there. */
export interface CellRule {
  readonly readyMetres: number;
}

/** What of a level is in memory, frame by frame of a device that reads its files. */
export class PackLoads {
  readonly loads: RunLoad[] = [];
  readonly late: Omit<LateCell, 'cell'>[] = [];
  readonly timesMs: number[] = [];
  readonly residentBytes: number[] = [];
  /** Files read before the first step, and how long the device takes over them. */
  start = { files: 0, loadMs: 0 };
  private bytes = 0;
  private readonly queue: ReadQueue;
  private readonly isReady: Uint8Array;
  /** How many of the streamer's units want each load unit. */
  private readonly users: Int32Array;
  private readonly distances: Float64Array;
  /** 1 for each of the streamer's units that is in memory. */
  private readonly hasCome: Uint8Array;
  /** The streamer's units that each load unit is made of. */
  private readonly partsOf: readonly number[][];
  private readonly openLoads = new Map<number, number>();
  private readonly neededMs: Float64Array;
  private readonly neededAt: Vector3[] = [];
  private readonly chunkCount: number;

  constructor(
    private readonly files: PackLevelFiles,
    private readonly streamer: Streamer,
    private readonly rule: CellRule,
    private readonly device: Device,
    /** Whether cells are unloaded and come one by one; else all is there from the start. */
    private readonly hasCells: boolean,
  ) {
    const { units } = files;
    this.queue = new ReadQueue(units, device);
    this.isReady = new Uint8Array(units.length);
    this.users = new Int32Array(units.length);
    this.distances = new Float64Array(units.length);
    this.chunkCount = streamer.units.filter(({ chunk }) => chunk !== null).length;
    this.hasCome = new Uint8Array(streamer.units.length);
    this.partsOf = units.map(() => []);
    files.unitOf.forEach((unit, part) => this.partsOf[unit].push(part));
    this.neededMs = new Float64Array(this.chunkCount).fill(NaN);
  }

  /** Loads what has to be there before the first step. */
  begin(x: number, y: number, z: number): void {
    this.streamer.update(x, y, z);
    const { own, units } = this.files;
    let { files, diskBytes } = own;
    let memoryBytes = 0;
    this.want();
    units.forEach((unit, i) => {
      if (this.hasCells && this.users[i] === 0) return;
      this.setReady(i, 1);
      files += unit.files;
      diskBytes += unit.diskBytes;
      memoryBytes += unit.memoryBytes;
    });
    this.start = { files, loadMs: loadTime({ files, diskBytes, memoryBytes }, this.device).totalMs };
    this.setBytes(0, memoryBytes);
  }

  /** Looks where the player is: asks for what has come near, drops what is far, notes what should be there and is not. */
  look(nowMs: number, [x, y, z]: Vector3): void {
    if (!this.hasCells) return;
    const { streamer } = this;
    streamer.update(x, y, z);
    for (let i = 0; i < streamer.droppedCount; i++) {
      const unit = streamer.dropped[i];
      if (unit < this.chunkCount && !Number.isNaN(this.neededMs[unit])) this.noteLate(unit, null, nowMs);
      this.release(this.files.unitOf[unit], nowMs);
    }
    this.ask(nowMs);
    for (let chunk = 1; chunk < this.chunkCount; chunk++) {
      if (!Number.isNaN(this.neededMs[chunk]) || !streamer.isWanted(chunk)) continue;
      if (streamer.distance(chunk) > this.rule.readyMetres || this.isThere(chunk)) continue;
      this.neededMs[chunk] = nowMs;
      this.neededAt[chunk] = [x, y, z];
    }
  }

  /** Goes on by one frame of reading, unpacking and activation. */
  read(startMs: number, endMs: number): void {
    if (!this.hasCells) return;
    for (const load of this.queue.frame(startMs, endMs, (waiting) => this.nearest(waiting))) this.take(load);
  }

  /** Ends the walk. */
  end(durationMs: number): void {
    this.neededMs.forEach((needed, chunk) => {
      if (!Number.isNaN(needed)) this.noteLate(chunk, null, durationMs);
    });
    this.setBytes(durationMs, this.bytes);
  }

  /** Whether a chunk is in memory with all that it needs. */
  isThere(chunk: number): boolean {
    return !this.hasCells || this.streamer.isThere(chunk, this.hasCome);
  }

  /** Bytes in memory now. */
  get memoryBytes(): number {
    return this.bytes;
  }

  private setReady(unit: number, ready: 0 | 1): void {
    this.isReady[unit] = ready;
    for (const part of this.partsOf[unit]) this.hasCome[part] = ready;
  }

  private want(): void {
    const { streamer } = this;
    for (let i = 0; i < streamer.askedCount; i++) this.users[this.files.unitOf[streamer.asked[i]]]++;
  }

  private ask(nowMs: number): void {
    const { streamer } = this;
    for (let i = 0; i < streamer.askedCount; i++) {
      const unit = this.files.unitOf[streamer.asked[i]];
      if (this.users[unit]++ === 0 && !this.isReady[unit]) this.queue.ask(unit, nowMs);
    }
  }

  private release(unit: number, nowMs: number): void {
    if (--this.users[unit] > 0) return;
    if (this.queue.takeBack(unit) || !this.isReady[unit]) return;
    this.setReady(unit, 0);
    const open = this.openLoads.get(unit);
    if (open !== undefined) this.loads[open] = { ...this.loads[open], droppedMs: nowMs };
    this.openLoads.delete(unit);
    this.setBytes(nowMs, this.bytes - this.files.units[unit].memoryBytes);
  }

  private take({ file, askedMs, readStartMs, readEndMs, unpackEndMs, readyMs }: FileLoad): void {
    const { key, name, diskBytes, memoryBytes } = this.files.units[file];
    const isWanted = this.users[file] > 0;
    const times = { askedMs, readStartMs, readEndMs, unpackEndMs, readyMs, droppedMs: isWanted ? null : readyMs };
    this.loads.push({ key, name, diskBytes, memoryBytes, ...times });
    if (!isWanted || this.isReady[file]) return;
    this.setReady(file, 1);
    this.openLoads.set(file, this.loads.length - 1);
    this.setBytes(readyMs, this.bytes + memoryBytes);
    for (let chunk = 1; chunk < this.chunkCount; chunk++)
      if (!Number.isNaN(this.neededMs[chunk]) && this.isThere(chunk)) this.noteLate(chunk, readyMs, readyMs);
  }

  private noteLate(chunk: number, readyMs: number | null, untilMs: number): void {
    const neededMs = this.neededMs[chunk];
    const key = this.streamer.units[chunk].chunk ?? '';
    this.late.push({ key, neededMs, readyMs, lateMs: untilMs - neededMs, at: this.neededAt[chunk] });
    this.neededMs[chunk] = NaN;
  }

  /** The waiting unit to be read next: the nearest; at one distance meshes first, then as the units are in order. */
  private nearest(waiting: ReadonlyMap<number, number>): number {
    const { unitOf } = this.files;
    this.distances.fill(Infinity);
    for (let unit = 0; unit < unitOf.length; unit++)
      this.distances[unitOf[unit]] = Math.min(this.distances[unitOf[unit]], this.streamer.distance(unit));
    let best = -1;
    for (const unit of waiting.keys())
      if (
        best < 0 ||
        this.distances[unit] < this.distances[best] ||
        (this.distances[unit] === this.distances[best] && unit < best)
      )
        best = unit;
    return best;
  }

  private setBytes(nowMs: number, bytes: number): void {
    this.bytes = bytes;
    if (this.timesMs.at(-1) === nowMs) this.residentBytes[this.residentBytes.length - 1] = bytes;
    else {
      this.timesMs.push(nowMs);
      this.residentBytes.push(bytes);
    }
  }
}
