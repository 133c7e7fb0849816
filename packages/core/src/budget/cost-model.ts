import type { BlockSurface } from '../geometry/block-solid';
import type { Device } from '../model/device';

/** Bytes of one vertex in memory: position, normal, one texture coordinate, as float32. */
const VERTEX_BYTES = 32;
/** Bytes of one index in memory. */
export const INDEX_BYTES = 4;
/** Bytes of one instance in memory: a 4 by 3 matrix of float32. */
export const INSTANCE_BYTES = 48;
/** Bytes of collision for one triangle of a block: three positions of float32. */
const COLLISION_TRIANGLE_BYTES = 36;
/** Packed bytes on disk for one byte in memory. */
export const PACKED_SHARE = 0.55;

/** Bytes of a block in memory: its corners, indices and collision. */
export function blockBytes({ faces, triangles }: Pick<BlockSurface, 'faces' | 'triangles'>): number {
  const vertices = faces.reduce((sum, face) => sum + face.length / 3, 0);
  return vertices * VERTEX_BYTES + triangles * (3 * INDEX_BYTES + COLLISION_TRIANGLE_BYTES);
}

/** What has to be read: files, their bytes on disk and in memory. */
export interface LoadParts {
  readonly files: number;
  readonly diskBytes: number;
  readonly memoryBytes: number;
}

/** Load time by its parts, milliseconds. */
export interface LoadTime {
  readonly seekMs: number;
  readonly readMs: number;
  readonly unpackMs: number;
  readonly activateMs: number;
  readonly totalMs: number;
}

/**
 * Time to load on a device: a queue with one read at a time. Seek per file, bytes over disk speed, unpacking, then
 * activation in slices of so many milliseconds a frame. docs/model.md holds the formula.
 */
export function loadTime({ files, diskBytes, memoryBytes }: LoadParts, device: Device): LoadTime {
  const seekMs = files * device.seekMs;
  const readMs = (diskBytes / device.diskBytesPerSecond) * 1000;
  const unpackMs = (memoryBytes / device.unpackBytesPerSecond) * 1000;
  const slices = Math.ceil(memoryBytes / (device.activationBytesPerMs * device.activationSliceMs));
  const activateMs = (slices * 1000) / device.framesPerSecond;
  return { seekMs, readMs, unpackMs, activateMs, totalMs: seekMs + readMs + unpackMs + activateMs };
}
