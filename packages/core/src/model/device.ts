/** The limits of a device for a level. */
export interface Budget {
  readonly triangles: number;
  readonly drawCalls: number;
  readonly memoryBytes: number;
  readonly loadMs: number;
  readonly diskBytes: number;
}

/** A simulated machine. */
export interface Device {
  readonly id: string;
  readonly name: string;
  readonly order: string;
  readonly budget: Budget;
  readonly seekMs: number;
  readonly diskBytesPerSecond: number;
  readonly unpackBytesPerSecond: number;
  /** Time a frame may spend on activating what was loaded. */
  readonly activationSliceMs: number;
  /** Bytes made ready in one millisecond of activation. */
  readonly activationBytesPerMs: number;
  readonly framesPerSecond: number;
}
