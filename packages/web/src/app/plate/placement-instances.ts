import { greatestScale, isMirrored, turnMatrix, type TurnDegrees } from '@stravel/core';
import { DynamicDrawUsage, InstancedBufferAttribute, InstancedMesh, Sphere, Vector3, type Group } from 'three';
import type { PlacementStore } from '../document/placement-columns';
import type { PieceMesh, StepMesh } from './kit-meshes';
import { SlicedWork } from './sliced-work';

/** Side of the squares of the plan by which instances are culled together, metres. */
export const CHUNK_METRES = 128;
/** The same for pieces with a detail chain: instances of a square show the same step. */
export const CHAIN_CHUNK_METRES = 32;
/** With more squares than this, those of a piece are doubled in side until so many of its instances share one: each square is a draw call. */
const MANY_CHUNKS = 600;
const MIN_A_CHUNK = 48;
const WIDEST_METRES = 1e6;
/** How the key of a square of mirrored instances ends. */
const MIRRORED = ' mirrored';
/** Placements between two points at which drawing may pause. */
const SLOTS_A_STEP = 1024;

/** How large things are in a picture, for choosing detail steps. */
export interface DetailView {
  /** Where one looks from, metres; undefined when all is drawn to one scale. */
  readonly eye: readonly [number, number, number] | undefined;
  /** Pixels of a metre, at a distance of one metre when there is an eye. */
  readonly pixels: number;
  /** How far a coarser step may be off, pixels. */
  readonly errorPixels: number;
}

/**
 * Instances of one piece in one square. Those that are mirrored stand in squares of their own: their triangles go round the
 * other way, which a whole mesh can do, and not one of its instances.
 */
interface InstanceChunk {
  /** Meshes of each step; all share one buffer of matrices. */
  readonly steps: readonly { readonly meshes: readonly InstancedMesh[]; readonly deviationMetres: number }[];
  readonly matrices: InstancedBufferAttribute;
  readonly sphere: Sphere;
  /** The same in the frame of its meshes, by which they are culled: another where they are mirrored. */
  readonly culled: Sphere;
  readonly isMirrored: boolean;
  /** Side of the square, metres. */
  readonly side: number;
  step: number;
  /** Placement slot of each instance. */
  readonly slots: number[];
  /** Reach of the piece about its own origin at scale 1, metres. */
  readonly radius: number;
  /** Heights and largest scale of what is in it; only ever grow, until it is filled anew. */
  low: number;
  high: number;
  scale: number;
}

/** How many of a piece there are, and between which x and z. */
interface Spread {
  count: number;
  readonly low: [number, number];
  readonly high: [number, number];
}

interface Place {
  readonly key: string;
  index: number;
}

/** The placements of one stratum as instances; a change uploads only what it touched. */
export class PlacementInstances {
  private readonly chunks = new Map<string, InstanceChunk>();
  private readonly places = new Map<number, Place>();
  /** Side of the squares of each piece, metres; as it was when everything was last drawn anew. */
  private readonly sides = new Map<string, number>();
  private readonly work: SlicedWork;

  constructor(
    private readonly group: Group,
    private readonly store: PlacementStore,
    private readonly meshOf: (piece: string) => PieceMesh | undefined,
    /** Whether what stands in a group, or in none, is drawn. */
    private readonly shows: (group: string | undefined) => boolean = () => true,
    /** Called when a slice has been drawn later than it was asked for. */
    drawn: () => void = () => undefined,
  ) {
    this.work = new SlicedWork(drawn);
  }

  /** Whether some of it is still to be drawn. */
  get isDrawing(): boolean {
    return this.work.isUnderWay;
  }

  /** Draws everything anew; what is much, in slices. */
  rebuild(): void {
    this.dispose();
    this.work.begin(this.redraw());
  }

  private *redraw(): Generator<void> {
    yield* this.chooseSides();
    const byChunk = new Map<string, number[]>();
    for (let slot = 0; slot < this.store.slotCount; slot++) {
      if (slot % SLOTS_A_STEP === 0) yield;
      if (!this.isDrawn(slot)) continue;
      const key = this.keyOf(slot);
      const list = byChunk.get(key);
      if (list) list.push(slot);
      else byChunk.set(key, [slot]);
    }
    for (const [key, slots] of byChunk) {
      this.fill(key, slots);
      yield;
    }
  }

  /** Draws one placement anew after it was put, moved or removed. `slot` as it was when it was last drawn, or is now. */
  update(slot: number): void {
    this.work.finish();
    const place = this.places.get(slot);
    const key = this.isDrawn(slot) ? this.keyOf(slot) : undefined;
    if (place && place.key === key) {
      this.write(this.chunks.get(key) as InstanceChunk, place.index, slot);
      return;
    }
    if (place) this.takeOut(slot, place);
    if (key !== undefined) this.putIn(slot, key);
  }

  /** Shows for each square the coarsest step that is not off by more than allowed at its nearest point. */
  chooseSteps({ eye, pixels, errorPixels }: DetailView): void {
    for (const chunk of this.chunks.values()) {
      if (chunk.steps.length === 1) continue;
      const { center, radius } = chunk.sphere;
      const near = eye
        ? Math.max(1e-3, Math.hypot(center.x - eye[0], center.y - eye[1], center.z - eye[2]) - radius)
        : 1;
      const allowed = (errorPixels * near) / (pixels * Math.max(chunk.scale, 1e-6));
      let step = 0;
      chunk.steps.forEach(({ deviationMetres }, i) => {
        if (deviationMetres <= allowed) step = i;
      });
      if (step === chunk.step) continue;
      chunk.step = step;
      this.setCount(chunk);
    }
  }

  /** Triangles of everything in the steps that are shown. */
  get triangles(): number {
    let sum = 0;
    for (const { steps, step, slots } of this.chunks.values()) {
      for (const { geometry } of steps[step].meshes)
        sum += ((geometry.index?.count ?? geometry.attributes['position'].count) / 3) * slots.length;
    }
    return sum;
  }

  dispose(): void {
    this.work.stop();
    for (const chunk of this.chunks.values()) this.drop(chunk);
    this.chunks.clear();
    this.places.clear();
  }

  private isDrawn(slot: number): boolean {
    return this.store.idAt(slot) !== undefined && this.shows(this.store.groupAt(slot));
  }

  private keyOf(slot: number): string {
    const at = slot * 9;
    const piece = this.store.pieceAt(slot);
    const side = this.sideOf(piece);
    const x = Math.floor(this.store.numbers[at] / side);
    const z = Math.floor(this.store.numbers[at + 2] / side);
    return `${piece} ${x} ${z}${isMirrored(this.scaleAt(slot)) ? MIRRORED : ''}`;
  }

  private scaleAt(slot: number): [number, number, number] {
    const at = slot * 9 + 6;
    return [this.store.numbers[at], this.store.numbers[at + 1], this.store.numbers[at + 2]];
  }

  private sideOf(piece: string): number {
    return this.sides.get(piece) ?? this.leastSide(piece);
  }

  private leastSide(piece: string): number {
    return (this.meshOf(piece)?.steps.length ?? 1) > 1 ? CHAIN_CHUNK_METRES : CHUNK_METRES;
  }

  /** Wider squares for pieces that stand far apart. */
  private *chooseSides(): Generator<void> {
    this.sides.clear();
    const spread = new Map<string, Spread>();
    for (let slot = 0; slot < this.store.slotCount; slot++) {
      if (slot % SLOTS_A_STEP === 0) yield;
      if (!this.isDrawn(slot)) continue;
      const piece = this.store.pieceAt(slot);
      let known = spread.get(piece);
      if (!known) spread.set(piece, (known = { count: 0, low: [Infinity, Infinity], high: [-Infinity, -Infinity] }));
      known.count++;
      for (const k of [0, 1] as const) {
        const at = this.store.numbers[slot * 9 + k * 2];
        if (at < known.low[k]) known.low[k] = at;
        if (at > known.high[k]) known.high[k] = at;
      }
    }
    const squares = ({ count, low, high }: Spread, side: number): number =>
      Math.min(count, (Math.floor((high[0] - low[0]) / side) + 1) * (Math.floor((high[1] - low[1]) / side) + 1));
    const all = [...spread].reduce((sum, [piece, one]) => sum + squares(one, this.leastSide(piece)), 0);
    if (all <= MANY_CHUNKS) return;
    for (const [piece, one] of spread) {
      let side = this.leastSide(piece);
      while (squares(one, side) > Math.max(1, one.count / MIN_A_CHUNK) && side < WIDEST_METRES) side *= 2;
      this.sides.set(piece, side);
    }
  }

  private fill(key: string, slots: number[]): void {
    const chunk = this.newChunk(key, slots.length);
    if (!chunk) return;
    this.chunks.set(key, chunk);
    slots.forEach((slot, index) => {
      chunk.slots.push(slot);
      this.places.set(slot, { key, index });
      writeMatrix(chunk, index, this.store.numbers, slot);
      this.widen(chunk, slot);
    });
    this.setCount(chunk);
  }

  private newChunk(key: string, capacity: number): InstanceChunk | undefined {
    const [piece, x, z, isMirrored] = splitKey(key);
    const mesh = this.meshOf(piece);
    if (!mesh || mesh.steps[0].parts.length === 0) return undefined;
    const matrices = new InstancedBufferAttribute(new Float32Array(capacity * 16), 16);
    matrices.setUsage(DynamicDrawUsage);
    const radius = Math.max(...mesh.steps[0].parts.map(({ geometry }) => radiusOf(geometry)));
    const side = this.sideOf(piece);
    const sphere = new Sphere(new Vector3((x + 0.5) * side, 0, (z + 0.5) * side), 0);
    const culled = isMirrored ? new Sphere() : sphere;
    const steps = mesh.steps.map(({ parts, deviationMetres }) => ({
      deviationMetres,
      meshes: parts.map(({ geometry, material }) => {
        const instanced = new InstancedMesh(geometry, material, 0);
        instanced.instanceMatrix = matrices;
        instanced.boundingSphere = culled;
        // The matrices undo it: what is left is that three draws the triangles the other way round.
        if (isMirrored) instanced.scale.x = -1;
        this.group.add(instanced);
        return instanced;
      }),
    }));
    return {
      steps,
      matrices,
      sphere,
      culled,
      isMirrored,
      side,
      step: 0,
      slots: [],
      radius,
      low: Infinity,
      high: -Infinity,
      scale: 0,
    };
  }

  private putIn(slot: number, key: string): void {
    let chunk = this.chunks.get(key);
    if (!chunk || chunk.slots.length === chunk.matrices.count) {
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
    const attribute = chunk.matrices;
    writeMatrix(chunk, index, this.store.numbers, slot);
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
    chunk.scale = Math.max(chunk.scale, greatestScale(this.scaleAt(slot)));
    const { sphere } = chunk;
    sphere.center.y = (chunk.low + chunk.high) / 2;
    sphere.radius = Math.hypot(chunk.side * Math.SQRT1_2, (chunk.high - chunk.low) / 2) + chunk.radius * chunk.scale;
    if (!chunk.isMirrored) return;
    chunk.culled.copy(sphere);
    chunk.culled.center.x = -sphere.center.x;
  }

  private setCount(chunk: InstanceChunk): void {
    chunk.steps.forEach(({ meshes }, step) => {
      for (const mesh of meshes) {
        mesh.count = chunk.slots.length;
        mesh.visible = mesh.count > 0 && step === chunk.step;
      }
    });
  }

  private drop(chunk: InstanceChunk): void {
    for (const mesh of chunk.steps.flatMap(({ meshes }) => meshes)) {
      this.group.remove(mesh);
      // Geometry and material belong to the kit.
      mesh.dispose();
    }
  }
}

function splitKey(key: string): [string, number, number, boolean] {
  const parts = key.split(' ');
  return [parts[0], Number(parts[1]), Number(parts[2]), key.endsWith(MIRRORED)];
}

function radiusOf(geometry: StepMesh['parts'][number]['geometry']): number {
  if (!geometry.boundingSphere) geometry.computeBoundingSphere();
  const sphere = geometry.boundingSphere as Sphere;
  return sphere.center.length() + sphere.radius;
}

/** Column-major 4 by 4 matrix of a slot, in the frame of the meshes of its square. */
function writeMatrix(
  { matrices, isMirrored }: Pick<InstanceChunk, 'matrices' | 'isMirrored'>,
  index: number,
  numbers: Float64Array,
  slot: number,
): void {
  const out = matrices.array as Float32Array;
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
  if (isMirrored) for (let column = 0; column < 4; column++) out[o + column * 4] = -out[o + column * 4];
}
