import type { Device } from './device';

/** One figure of a device: what it is called, counted in, means, and may be. */
export interface DeviceField {
  /** Where it stands in the record, such as 'budget.triangles'. */
  readonly path: string;
  readonly name: string;
  /** What a person reads it in. */
  readonly unit: string;
  /** Stored value of one unit. */
  readonly scale: number;
  readonly meaning: string;
  /** Range of the stored value, both ends allowed. */
  readonly min: number;
  readonly max: number;
  readonly isWhole: boolean;
}

const MB = 1000000;
type LimitKey = keyof Device['budget'];
type SpeedKey = Exclude<keyof Device, 'id' | 'name' | 'order' | 'budget'>;
const figure = (
  path: string,
  name: string,
  unit: string,
  scale: number,
  meaning: string,
  [min, max]: readonly [number, number],
  isWhole: boolean,
): DeviceField => ({
  path,
  name,
  unit,
  scale,
  meaning,
  min,
  max,
  isWhole,
});

/** The limits of a device: what a level may cost on it. */
export const DEVICE_LIMITS: Readonly<Record<LimitKey, DeviceField>> = {
  triangles: figure('budget.triangles', 'Triangles', '', 1, 'Max drawn from one place.', [1, 1e10], true),
  drawCalls: figure(
    'budget.drawCalls',
    'Draw calls',
    '',
    1,
    'Max from one place: one per piece, material and LOD, one per material of blocks.',
    [1, 1e7],
    true,
  ),
  memoryBytes: figure('budget.memoryBytes', 'Memory', 'MB', MB, 'Max that a level may need at once.', [1, 1e12], true),
  loadMs: figure('budget.loadMs', 'Load time', 'ms', 1, 'Max time until a level is ready.', [1, 1e7], false),
  diskBytes: figure('budget.diskBytes', 'Disk', 'MB', MB, 'Max size of the files of a level.', [1, 1e13], true),
};

/** The speeds of a device: from them load times and rehearsals are computed. */
export const DEVICE_SPEEDS: Readonly<Record<SpeedKey, DeviceField>> = {
  seekMs: figure('seekMs', 'Seek', 'ms', 1, 'Time until the first byte of a file.', [0, 10000], false),
  diskBytesPerSecond: figure(
    'diskBytesPerSecond',
    'Disk speed',
    'MB/s',
    MB,
    'Bytes read in a second.',
    [1, 1e12],
    false,
  ),
  unpackBytesPerSecond: figure(
    'unpackBytesPerSecond',
    'Unpacking',
    'MB/s',
    MB,
    'Bytes unpacked in a second.',
    [1, 1e12],
    false,
  ),
  activationSliceMs: figure(
    'activationSliceMs',
    'Activation slice',
    'ms',
    1,
    'Time that a frame may spend on making loaded content ready.',
    [0.01, 1000],
    false,
  ),
  activationBytesPerMs: figure(
    'activationBytesPerMs',
    'Activation',
    'kB/ms',
    1000,
    'Bytes made ready in one millisecond of the slice.',
    [1, 1e10],
    false,
  ),
  framesPerSecond: figure(
    'framesPerSecond',
    'Frame rate',
    'frames/s',
    1,
    'Frames a second that it must keep.',
    [1, 1000],
    false,
  ),
};
