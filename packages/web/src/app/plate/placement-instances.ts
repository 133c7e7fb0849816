import { turnMatrix, type TurnDegrees } from '@stravel/core';
import { DynamicDrawUsage, InstancedBufferAttribute, InstancedMesh, Sphere, Vector3, type Group } from 'three';
import type { PlacementStore } from '../document/placement-columns';
import type { PieceMesh } from './kit-meshes';

/** Side of the squares of the plan by which instances are culled together, metres. */
export const CHUNK_METRES = 128;

/** Instances of one piece in one square. */
interface InstanceChunk {
  readonly meshes: readonly InstancedMesh[];
  /** Placement slot of each instance. */
  readonly slots: number[];
  /** Reach of the piece about its own origin at scale 1, metres. */
  readonly radius: number;
  /** Heights and largest scale of what is in it; only ever grow, until it is filled anew. */
  low: number;
  high: number;
  scale: number;
}

interface Place {
  readonly key: string;
  index: number;
}

/** The placements of one stratum as instances; a change uploads only what it touched. */
export class PlacementInstances {
  private readonly chunks = new Map<string, InstanceChunk>();
  private readonly places = new Map<number, Place>();

  constructor(
    private readonly group: Group,
    private readonly store: PlacementStore,
    private readonly meshOf: (piece: string) => PieceMesh | undefined,
  ) {}

  /** Draws everything anew. */
  rebuild(): void {
    this.dispose();
    const byChunk = new Map<string, number[]>();
    for (let slot = 0; slot < this.store.slotCount; slot++) {
      if (this.store.idAt(slot) === undefined) continue;
      const key = this.keyOf(slot);
      const list = byChunk.get(key);
      if (list) list.push(slot);
      else byChunk.set(key, [slot]);
    }
    for (const [key, slots] of byChunk) this.fill(key, slots);
  }

  /** Draws one placement anew after it was put, moved or removed. `slot` as it was when it was last drawn, or is now. */
  update(slot: number): void {
    const place = this.places.get(slot);
    const alive = this.store.idAt(slot) !== undefined;
    const key = alive ? this.keyOf(slot) : undefined;
    if (place && place.key === key) {
      this.write(this.chunks.get(key) as InstanceChunk, place.index, slot);
      return;
    }
    if (place) this.takeOut(slot, place);
    if (key !== undefined) this.putIn(slot, key);
  }

  dispose(): void {
    for (const chunk of this.chunks.values()) this.drop(chunk);
    this.chunks.clear();
    this.places.clear();
  }

  private keyOf(slot: number): string {
    const at = slot * 9;
    const x = Math.floor(this.store.numbers[at] / CHUNK_METRES);
    const z = Math.floor(this.store.numbers[at + 2] / CHUNK_METRES);
    return `${this.store.pieceAt(slot)} ${x} ${z}`;
  }

  private fill(key: string, slots: number[]): void {
    const chunk = this.newChunk(key, slots.length);
    if (!chunk) return;
    this.chunks.set(key, chunk);
    slots.forEach((slot, index) => {
      chunk.slots.push(slot);
      this.places.set(slot, { key, index });
      writeMatrix(chunk.meshes[0].instanceMatrix.array as Float32Array, index, this.store.numbers, slot);
      this.widen(chunk, slot);
    });
    this.setCount(chunk);
  }

  private newChunk(key: string, capacity: number): InstanceChunk | undefined {
    const [piece, x, z] = splitKey(key);
    const mesh = this.meshOf(piece);
    if (!mesh || mesh.parts.length === 0) return undefined;
    const matrices = new InstancedBufferAttribute(new Float32Array(capacity * 16), 16);
    matrices.setUsage(DynamicDrawUsage);
    const radius = Math.max(...mesh.parts.map(({ geometry }) => radiusOf(geometry)));
    const sphere = new Sphere(new Vector3((x + 0.5) * CHUNK_METRES, 0, (z + 0.5) * CHUNK_METRES), 0);
    const meshes = mesh.parts.map(({ geometry, material }) => {
      const instanced = new InstancedMesh(geometry, material, 0);
      instanced.instanceMatrix = matrices;
      instanced.boundingSphere = sphere;
      this.group.add(instanced);
      return instanced;
    });
    return { meshes, slots: [], radius, low: Infinity, high: -Infinity, scale: 0 };
  }

  private putIn(slot: number, key: string): void {
    let chunk = this.chunks.get(key);
    if (!chunk || chunk.slots.length === chunk.meshes[0].instanceMatrix.count) {
      const slots = [...(chunk?.slots ?? []), slot];
      if (chunk) this.drop(chunk);
      chunk = this.newChunk(key, Math.max(8, slots.length * 2));
      if (!chunk) return;
      this.chunks.set(key, chunk);
      for (const one of slots) this.append(chunk, key, one);
    } else {
      this.append(chunk, key, slot);
    }
    this.setCount(chunk);
  }

  private append(chunk: InstanceChunk, key: string, slot: number): void {
    const index = chunk.slots.length;
    chunk.slots.push(slot);
    this.places.set(slot, { key, index });
    this.write(chunk, index, slot);
  }

  /** The last instance of the square takes the place of the one that leaves. */
  private takeOut(slot: number, place: Place): void {
    const chunk = this.chunks.get(place.key);
    this.places.delete(slot);
    if (!chunk) return;
    const last = chunk.slots.pop() as number;
    if (last !== slot) {
      chunk.slots[place.index] = last;
      (this.places.get(last) as Place).index = place.index;
      this.write(chunk, place.index, last);
    }
    this.setCount(chunk);
  }

  private write(chunk: InstanceChunk, index: number, slot: number): void {
    const attribute = chunk.meshes[0].instanceMatrix;
    writeMatrix(attribute.array as Float32Array, index, this.store.numbers, slot);
    attribute.addUpdateRange(index * 16, 16);
    attribute.needsUpdate = true;
    this.widen(chunk, slot);
  }

  /** Grows the sphere that a square is culled by, so that it holds an instance. */
  private widen(chunk: InstanceChunk, slot: number): void {
    const { numbers } = this.store;
    const y = numbers[slot * 9 + 1];
    chunk.low = Math.min(chunk.low, y);
    chunk.high = Math.max(chunk.high, y);
    chunk.scale = Math.max(chunk.scale, numbers[slot * 9 + 6], numbers[slot * 9 + 7], numbers[slot * 9 + 8]);
    const sphere = chunk.meshes[0].boundingSphere as Sphere;
    sphere.center.y = (chunk.low + chunk.high) / 2;
    sphere.radius = Math.hypot(CHUNK_METRES * Math.SQRT1_2, (chunk.high - chunk.low) / 2) + chunk.radius * chunk.scale;
  }

  private setCount(chunk: InstanceChunk): void {
    for (const mesh of chunk.meshes) {
      mesh.count = chunk.slots.length;
      mesh.visible = mesh.count > 0;
    }
  }

  private drop(chunk: InstanceChunk): void {
    for (const mesh of chunk.meshes) {
      this.group.remove(mesh);
      // Geometry and material belong to the kit.
      mesh.dispose();
    }
  }
}

function splitKey(key: string): [string, number, number] {
  const parts = key.split(' ');
  return [parts[0], Number(parts[1]), Number(parts[2])];
}

function radiusOf(geometry: PieceMesh['parts'][number]['geometry']): number {
  if (!geometry.boundingSphere) geometry.computeBoundingSphere();
  const sphere = geometry.boundingSphere as Sphere;
  return sphere.center.length() + sphere.radius;
}

/** Column-major 4 by 4 matrix of a slot. */
function writeMatrix(out: Float32Array, index: number, numbers: Float64Array, slot: number): void {
  const at = slot * 9;
  const m = turnMatrix([numbers[at + 3], numbers[at + 4], numbers[at + 5]] as TurnDegrees);
  const o = index * 16;
  for (let column = 0; column < 3; column++) {
    const scale = numbers[at + 6 + column];
    for (let row = 0; row < 3; row++) out[o + column * 4 + row] = m[row * 3 + column] * scale;
    out[o + column * 4 + 3] = 0;
  }
  out[o + 12] = numbers[at];
  out[o + 13] = numbers[at + 1];
  out[o + 14] = numbers[at + 2];
  out[o + 15] = 1;
}
