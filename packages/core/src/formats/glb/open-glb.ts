import { strFromU8 } from 'fflate';
import { CoreError } from '../../errors';
import { parseJson } from '../../json/canonical-json';

const GLB_MAGIC = 0x46546c67;
const JSON_CHUNK = 0x4e4f534a;
const BIN_CHUNK = 0x004e4942;
const MAX_ELEMENTS = 1e8;
/** Bytes of one component by its glTF code. */
export const COMPONENT_BYTES: Readonly<Record<number, number>> = {
  5120: 1,
  5121: 1,
  5122: 2,
  5123: 2,
  5125: 4,
  5126: 4,
};
/** Components of an element by its type. */
export const COMPONENTS: Readonly<Record<string, number>> = {
  SCALAR: 1,
  VEC2: 2,
  VEC3: 3,
  VEC4: 4,
  MAT2: 4,
  MAT3: 9,
  MAT4: 16,
};

/** A GLB taken apart. */
export interface OpenGlb {
  /** Of its claims only those that take up bytes are checked; anything else may stand in it. */
  readonly json: object;
  /** The binary chunk, empty when there is none. */
  readonly binary: Uint8Array;
}

/**
 * Takes a GLB apart. Its meshes are not read, but what they claim must fit into the file.
 * @param isAlone false where buffers may stand in files beside it: whoever has those checks what is claimed of them
 * @throws CoreError 'GLB_UNREADABLE' naming what its header, a buffer view or an accessor claims
 * Source: Khronos, glTF 2.0 specification, chapter 4.
 */
export function openGlb(bytes: Uint8Array, isAlone = true): OpenGlb {
  const fail = (rule: string): never => {
    throw new CoreError('GLB_UNREADABLE', `glb: ${rule}`);
  };
  if (bytes.length < 20) fail(`needs at least 20 bytes, has ${bytes.length}`);
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (view.getUint32(0, true) !== GLB_MAGIC) fail('does not start as a GLB does');
  if (view.getUint32(4, true) !== 2) fail(`its version is ${view.getUint32(4, true)}, must be 2`);
  if (view.getUint32(8, true) !== bytes.length) fail(`claims ${view.getUint32(8, true)} bytes, has ${bytes.length}`);
  const length = view.getUint32(12, true);
  if (view.getUint32(16, true) !== JSON_CHUNK || 20 + length > bytes.length)
    fail(`its JSON claims ${length} bytes of ${bytes.length}`);
  const json = parseJson(strFromU8(bytes.subarray(20, 20 + length)), 'glb') as object;
  const binary = binaryChunk(bytes, view, 20 + length);
  if (isAlone) checkClaims(json, [binary.length], fail);
  return { json, binary };
}

/** What follows the JSON. */
function binaryChunk(bytes: Uint8Array, view: DataView, at: number): Uint8Array {
  if (at + 8 > view.byteLength || view.getUint32(at + 4, true) !== BIN_CHUNK) return new Uint8Array(0);
  return bytes.subarray(at + 8, at + 8 + view.getUint32(at, true));
}

/** Extensions that pack a view: where its packed bytes lie, and how many it has unpacked. */
const PACKED_VIEWS = ['EXT_meshopt_compression', 'KHR_meshopt_compression'];
/** Most bytes of a view that is unpacked, and of all elements together that stand in none. */
const MAX_UNPACKED_BYTES = 1e9;

/**
 * Checks that what a glTF claims of its buffers fits into them. A packed view is held to what it is packed in, not to the buffer that
 * stands in for it.
 * @param bufferBytes bytes that each buffer has
 * @param fail throws the rule that is broken
 */
export function checkClaims(
  { bufferViews, accessors }: { readonly bufferViews?: unknown; readonly accessors?: unknown },
  bufferBytes: readonly number[],
  fail: (rule: string) => never,
): void {
  const views = asTables(bufferViews);
  views.forEach(({ extensions, ...plain }, i) => {
    const packed = packedView(extensions);
    const { buffer = 0, byteOffset = 0, byteLength } = packed ?? plain;
    const unpacked = packed && Number(packed['count']) * Number(packed['byteStride']);
    if (packed && !(unpacked === plain['byteLength'] && isSize(unpacked) && unpacked <= MAX_UNPACKED_BYTES))
      fail(`bufferViews[${i}] claims to be unpacked to ${String(plain['byteLength'])} bytes`);
    const binary = bufferBytes[buffer as number] ?? 0;
    if (!isSize(byteOffset) || !isSize(byteLength) || byteOffset + byteLength > binary) {
      fail(
        `bufferViews[${i}] claims bytes ${String(byteOffset)} to ${String(byteOffset)} + ${String(byteLength)} of ${binary}`,
      );
    }
  });
  let inNoView = 0;
  asTables(accessors).forEach(({ bufferView, byteOffset = 0, componentType, type, count }, i) => {
    const bytes = COMPONENT_BYTES[componentType as number] * COMPONENTS[type as string];
    if (!isSize(count) || count > MAX_ELEMENTS || !(bytes > 0))
      return fail(`accessors[${i}] claims ${String(count)} elements of ${String(type)}`);
    if (bufferView === undefined) {
      inNoView += bytes * count;
      if (inNoView > MAX_UNPACKED_BYTES) fail(`accessors[${i}] claims ${count} elements of ${String(type)} in no view`);
      return;
    }
    const { byteLength: room, byteStride = bytes } = views[bufferView as number] ?? {};
    if (
      !isSize(room) ||
      !isSize(byteOffset) ||
      !isSize(byteStride) ||
      // A file of a few bytes could claim any number of elements that lie over each other.
      (byteStride === 0 && count > 1) ||
      byteOffset + byteStride * Math.max(0, count - 1) + bytes > room
    ) {
      fail(
        `accessors[${i}] claims ${count} elements, bufferViews[${JSON.stringify(bufferView)}] has ${JSON.stringify(room)} bytes`,
      );
    }
  });
}

/** What packs a view, where something does. */
export function packedView(extensions: unknown): Record<string, unknown> | undefined {
  const [tables] = asTables([extensions]);
  const name = PACKED_VIEWS.find((one) => Object.hasOwn(tables, one));
  return name === undefined ? undefined : asTables([tables[name]])[0];
}

/** A list of tables of a glTF, whatever stands there: what is no table is an empty one. */
export function asTables(value: unknown): Record<string, unknown>[] {
  return Array.isArray(value)
    ? value.map((one: unknown) => (typeof one === 'object' && one !== null ? (one as Record<string, unknown>) : {}))
    : [];
}

/** Whether a claim is a count or a place: whole, and not below 0. */
export function isSize(value: unknown): value is number {
  return typeof value === 'number' && Number.isInteger(value) && value >= 0;
}
