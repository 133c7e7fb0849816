import { surfaceByMaterial } from '../geometry/block-faces';
import type { BlockSurface } from '../geometry/block-solid';
import type { Block } from '../model/block';
import type { Device } from '../model/device';

/** Bytes of one vertex in memory: position, normal, one texture coordinate, as float32. */
const VERTEX_BYTES = 32;
/** Bytes of one index in memory. */
const INDEX_BYTES = 4;
/** Bytes of one instance in memory: a 4 by 3 matrix of float32. */
export const INSTANCE_BYTES = 48;
/** Bytes of collision for one triangle of a block: three positions of float32. */
const COLLISION_TRIANGLE_BYTES = 36;
/** Bytes of one vertex of a block in a packed file: position, normal and texture coordinate, as float32. */
const PACKED_VERTEX_BYTES = 32;
/** Bytes of one index in a packed file, and of one where a material has more vertices than that reaches. */
const PACKED_INDEX_BYTES = 2;
const PACKED_LONG_INDEX_BYTES = 4;
const MAX_SHORT_VERTICES = 65535;
/** Bytes that a GLB of blocks has beside their vertices and indices, and for each material beside its name. */
const GLB_BYTES = 340;
const GLB_MATERIAL_BYTES = 662;

/** Bytes of a block in memory: its corners, indices and collision. */
export function blockBytes({ faces, triangles }: Pick<BlockSurface, 'faces' | 'triangles'>): number {
  return surfaceBytes(verticesOf({ faces }), triangles);
}

/** Bytes in memory of so many vertices and triangles of blocks, with their collision. */
export function surfaceBytes(vertices: number, triangles: number): number {
  return vertices * VERTEX_BYTES + triangles * (3 * INDEX_BYTES + COLLISION_TRIANGLE_BYTES);
}

/** Bytes of a block in a packed file. */
export function packedBlockBytes(surface: Pick<BlockSurface, 'faces' | 'triangles'>): number {
  return verticesOf(surface) * PACKED_VERTEX_BYTES + surface.triangles * 3 * PACKED_INDEX_BYTES;
}

/** The blocks of one file, by material. */
export class PackedBlocks {
  private readonly byMaterial = new Map<string, { vertices: number; triangles: number }>();

  add(block: Pick<Block, 'material' | 'faces' | 'planes'>, surface: BlockSurface): void {
    for (const [material, { corners, triangles }] of surfaceByMaterial(block, surface)) {
      const before = this.byMaterial.get(material) ?? { vertices: 0, triangles: 0 };
      this.byMaterial.set(material, {
        vertices: before.vertices + corners,
        triangles: before.triangles + triangles,
      });
    }
  }

  get files(): number {
    return this.byMaterial.size > 0 ? 1 : 0;
  }

  /** Bytes of their GLB, 0 where there are none; of real files it differs by less than 2 % and 100 a material. */
  get bytes(): number {
    let bytes = this.byMaterial.size > 0 ? GLB_BYTES : 0;
    for (const [name, { vertices, triangles }] of this.byMaterial) {
      const indexBytes = vertices > MAX_SHORT_VERTICES ? PACKED_LONG_INDEX_BYTES : PACKED_INDEX_BYTES;
      bytes += GLB_MATERIAL_BYTES + name.length + vertices * PACKED_VERTEX_BYTES + triangles * 3 * indexBytes;
    }
    return bytes;
  }
}

function verticesOf({ faces }: Pick<BlockSurface, 'faces'>): number {
  return faces.reduce((sum, face) => sum + face.length / 3, 0);
}

/** What has to be read: files, their bytes on disk and in memory. */
export interface LoadParts {
  readonly files: number;
  readonly diskBytes: number;
  readonly memoryBytes: number;
}

/** What a game loads for a level: the files that a pack has of it. What is seen from where has a file without bytes until it is baked. */
export interface LevelLoad extends LoadParts {
  /** Loaded cell by cell: at one time at most all of it is there. */
  readonly isCut: boolean;
  /** Of it, the kits: whole, whatever the level uses of them. */
  readonly kits: LoadParts;
  /** Of it, what belongs to no stratum; every file but those of the kits is counted here. */
  readonly own: LoadParts;
  /** Bytes on disk of each stratum's blocks and placements. */
  readonly strata: readonly { readonly stratum: string; readonly diskBytes: number }[];
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
