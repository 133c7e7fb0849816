import { MeshoptSimplifier, type Flags } from 'meshoptimizer/simplifier';
import type { ChainOptions } from './chain-options';
import { positionsOf, type MeshPart } from '../mesh/kit-meshes';
import { soundTriangles } from '../mesh/sound-triangles';

/** How much a unit of each attribute counts beside a metre of a mesh of size one. */
const ATTRIBUTE_WEIGHTS: Readonly<Record<string, number>> = {
  NORMAL: 0.5,
  COLOR_0: 0.5,
  TEXCOORD_0: 0.25,
  TEXCOORD_1: 0.25,
};
/** The simplifier stops at the triangles asked for, not at an error: what is off is measured afterwards. */
const NO_ERROR_LIMIT = 1e9;

/** A step must have at most this share of the triangles of the one before; else the chain ends. */
const MIN_GAIN = 0.9;

/** Shares of what a step saves that are tried more or less, until it is sound: another number of triangles mostly goes another way. */
const TRIES = [0, 0.02, -0.02, 0.05, -0.05, 0.08, -0.08, 0.12, 0.17, 0.23];

/** Attributes of a part that the simplifier looks at, side by side. */
interface WeighedAttributes {
  readonly values: Float32Array;
  readonly stride: number;
  readonly weights: readonly number[];
}

/** Ready once; the functions below need it. */
export function simplifierReady(): Promise<void> {
  return MeshoptSimplifier.ready;
}

/**
 * The coarser steps of a piece, each from the one before. Vertices that stand where another part has one as well do not move,
 * so that parts stay joined. Vertices are those of the full step: no attribute changes its value.
 * @param isSound whether a step may be kept; one that is not is made with some more or fewer triangles, and the chain ends where none is
 * @returns for each step the triangles of every part, as indices into that part's own vertices
 * Source: Garland and Heckbert, Surface simplification using quadric error metrics, 1997, as in meshoptimizer; vertices of a
 * step are packed together before the next, so that its cost goes with what is left.
 */
export function simplifyChain(
  parts: readonly MeshPart[],
  { steps, ratio }: ChainOptions,
  check: (step: number) => void,
  isSound: (step: readonly Uint32Array[]) => boolean = () => true,
): Uint32Array[][] {
  const locks = sharedBorders(parts);
  const weighed = parts.map(weighedAttributes);
  const chain: Uint32Array[][] = [];
  let before = parts.map(({ indices }) => indices);
  for (let step = 1; step <= steps; step++) {
    check(step);
    const next = firstSound(
      TRIES,
      (share) =>
        parts.map((part, i) =>
          simplified(before[i], part, weighed[i], locks[i], Math.min(0.99, ratio + (1 - ratio) * share)),
        ),
      isSound,
    );
    if (!next) break;
    const [now, last] = [next, before].map((list) => list.reduce((sum, indices) => sum + indices.length, 0));
    if (now > last * MIN_GAIN || now === 0) break;
    chain.push(next);
    before = next;
  }
  return chain;
}

/** The first of some steps that is sound, each made when it is asked for. */
function firstSound(
  tries: readonly number[],
  make: (share: number) => Uint32Array[],
  isSound: (step: readonly Uint32Array[]) => boolean,
): Uint32Array[] | undefined {
  for (const share of tries) {
    const step = make(share);
    if (isSound(step)) return step;
  }
  return undefined;
}

/** 1 for each vertex of a part that stands where another part has one. */
export function sharedBorders(parts: readonly MeshPart[]): Uint8Array[] {
  const locks = parts.map((part) => new Uint8Array(positionsOf(part).length / 3));
  if (parts.length < 2) return locks;
  const all = new Float32Array(parts.reduce((sum, part) => sum + positionsOf(part).length, 0));
  const owner = new Uint32Array(all.length / 3);
  let at = 0;
  parts.forEach((part, i) => {
    all.set(positionsOf(part), at * 3);
    owner.fill(i, at, at + positionsOf(part).length / 3);
    at += positionsOf(part).length / 3;
  });
  const first = MeshoptSimplifier.generatePositionRemap(all, 3);
  const isShared = new Uint8Array(owner.length);
  for (let v = 0; v < owner.length; v++) if (owner[first[v]] !== owner[v]) isShared[first[v]] = 1;
  at = 0;
  for (const lock of locks) for (let v = 0; v < lock.length; v++) lock[v] = isShared[first[at++]];
  return locks;
}

function weighedAttributes({ attributes }: MeshPart): WeighedAttributes {
  const used = attributes.filter(({ semantic }) => ATTRIBUTE_WEIGHTS[semantic] !== undefined);
  const stride = used.reduce((sum, { size }) => sum + size, 0);
  const vertices = attributes[0].values.length / 3;
  const values = new Float32Array(vertices * stride);
  let offset = 0;
  for (const { size, values: from } of used) {
    for (let v = 0; v < vertices; v++)
      for (let k = 0; k < size; k++) values[v * stride + offset + k] = from[v * size + k];
    offset += size;
  }
  return {
    values,
    stride,
    weights: used.flatMap(({ semantic, size }) => new Array<number>(size).fill(ATTRIBUTE_WEIGHTS[semantic])),
  };
}

function simplified(
  indices: Uint32Array,
  part: MeshPart,
  { values, stride, weights }: WeighedAttributes,
  locks: Uint8Array,
  ratio: number,
): Uint32Array {
  const wanted = Math.max(3, Math.floor((indices.length / 3) * ratio) * 3);
  if (wanted >= indices.length) return indices;
  const packed = indices.slice();
  const [remap, count] = MeshoptSimplifier.compactMesh(packed);
  const original = new Uint32Array(count);
  // Vertices that are not in use are sent to a number beyond all that are.
  for (let v = 0; v < remap.length; v++) if (remap[v] < count) original[remap[v]] = v;
  const positions = gather(positionsOf(part), 3, original);
  const lock = new Uint8Array(count);
  for (let v = 0; v < count; v++) lock[v] = locks[original[v]];
  // Without attributes the positions stand in for them, at no weight.
  const looked = stride === 0 ? positions : gather(values, stride, original);
  const run = (flags: Flags[]): Uint32Array =>
    MeshoptSimplifier.simplifyWithAttributes(
      packed,
      positions,
      3,
      looked,
      stride === 0 ? 3 : stride,
      stride === 0 ? [0, 0, 0] : [...weights],
      lock,
      wanted,
      NO_ERROR_LIMIT,
      flags,
    )[0];
  let result = run([]);
  // Where every edge is hard nothing can move; seams may then be closed over.
  if (result.length > indices.length * MIN_GAIN) result = run(['Permissive']);
  for (let i = 0; i < result.length; i++) result[i] = original[result[i]];
  return soundTriangles(positionsOf(part), result, { once: true });
}

function gather(source: Float32Array, size: number, order: Uint32Array): Float32Array {
  const out = new Float32Array(order.length * size);
  for (let i = 0; i < order.length; i++) for (let k = 0; k < size; k++) out[i * size + k] = source[order[i] * size + k];
  return out;
}
