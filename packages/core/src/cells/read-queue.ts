import type { Device } from '../model/device';

/** A file to be loaded. Bytes on disk and in memory. */
export interface LoadFile {
  /** Seeks that it takes; 0 for what stands in no file of its own. */
  readonly files: number;
  readonly diskBytes: number;
  readonly memoryBytes: number;
}

/** When a file was asked for and how it went; milliseconds from the start of the walk. */
export interface FileLoad {
  readonly file: number;
  readonly askedMs: number;
  readStartMs: number;
  readEndMs: number;
  unpackEndMs: number;
  readyMs: number;
}

/**
 * Loads files as a device does: one read at a time (seek, then bytes over disk speed), then one unpacking at a time, then
 * activation in slices of so many milliseconds a frame. The three work side by side on different files.
 */
export class ReadQueue {
  private readonly waiting = new Map<number, number>();
  /** Waiting or on its way. */
  private readonly open = new Set<number>();
  private readonly unpacking: FileLoad[] = [];
  private readonly activating: { readonly load: FileLoad; leftBytes: number }[] = [];
  private reading: FileLoad | undefined;
  private diskFreeMs = 0;
  private unpackFreeMs = 0;

  constructor(
    private readonly files: readonly LoadFile[],
    private readonly device: Device,
  ) {}

  /** Asks for a file; one that waits or is on its way is not asked for again. */
  ask(file: number, atMs: number): void {
    if (this.open.has(file)) return;
    this.open.add(file);
    this.waiting.set(file, atMs);
  }

  /** Takes back what waits. @returns false when it is being read or later, or was never asked for */
  takeBack(file: number): boolean {
    return this.waiting.delete(file) && this.open.delete(file);
  }

  /**
   * Goes on by one frame.
   * @param choose picks the next file to read among those that wait
   * @returns loads whose file is ready at the end of this frame
   */
  frame(startMs: number, endMs: number, choose: (waiting: ReadonlyMap<number, number>) => number): FileLoad[] {
    if (this.open.size === 0) return [];
    this.readUntil(startMs, endMs, choose);
    for (let load = this.unpacking.at(0); load && load.unpackEndMs <= endMs; load = this.unpacking.at(0)) {
      this.unpacking.shift();
      this.activating.push({ load, leftBytes: this.files[load.file].memoryBytes });
    }
    return this.activate(endMs);
  }

  private readUntil(startMs: number, endMs: number, choose: (waiting: ReadonlyMap<number, number>) => number): void {
    const { seekMs, diskBytesPerSecond, unpackBytesPerSecond } = this.device;
    for (;;) {
      if (this.reading) {
        if (this.reading.readEndMs > endMs) return;
        const load = this.reading;
        this.reading = undefined;
        this.diskFreeMs = load.readEndMs;
        load.unpackEndMs =
          Math.max(load.readEndMs, this.unpackFreeMs) +
          (this.files[load.file].memoryBytes / unpackBytesPerSecond) * 1000;
        this.unpackFreeMs = load.unpackEndMs;
        this.unpacking.push(load);
      }
      if (this.waiting.size === 0) return;
      const file = choose(this.waiting);
      const askedMs = this.waiting.get(file) as number;
      this.waiting.delete(file);
      const readStartMs = Math.max(startMs, this.diskFreeMs, askedMs);
      const readEndMs =
        readStartMs + seekMs * this.files[file].files + (this.files[file].diskBytes / diskBytesPerSecond) * 1000;
      this.reading = { file, askedMs, readStartMs, readEndMs, unpackEndMs: 0, readyMs: 0 };
    }
  }

  private activate(endMs: number): FileLoad[] {
    let sliceBytes = this.device.activationBytesPerMs * this.device.activationSliceMs;
    const ready: FileLoad[] = [];
    for (let next = this.activating.at(0); next; next = this.activating.at(0)) {
      const bytes = Math.min(sliceBytes, next.leftBytes);
      next.leftBytes -= bytes;
      sliceBytes -= bytes;
      if (next.leftBytes > 0) break;
      this.activating.shift();
      next.load.readyMs = endMs;
      this.open.delete(next.load.file);
      ready.push(next.load);
    }
    return ready;
  }
}
