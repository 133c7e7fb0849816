import { COMPONENT_BYTES, COMPONENTS, asTables, isSize, packedView } from './open-glb';

/** Codes of whole numbers from 0: the only ones that elements can be counted with. */
const INDEX_BYTES: Readonly<Record<number, 1 | 2 | 4>> = { 5121: 1, 5123: 2, 5125: 4 };

/**
 * Checks what sparse accessors claim: their parts fit into their views, and no element is changed that is not there. Elements of
 * packed views and of buffers that stand in the JSON itself are not looked at: such a change is passed over.
 * Source: Khronos, glTF 2.0 specification, section 3.6.2.3.
 * @param bytesOf bytes of a buffer; undefined where they are not at hand
 * @param fail throws the rule that is broken
 */
export function checkSparse(
  { accessors, bufferViews }: { readonly accessors?: unknown; readonly bufferViews?: unknown },
  bytesOf: (buffer: number) => Uint8Array | undefined,
  fail: (rule: string) => never,
): void {
  const views = asTables(bufferViews);
  asTables(accessors).forEach(({ sparse, count, componentType, type }, i) => {
    if (sparse === undefined) return;
    const where = `accessors[${i}].sparse`;
    const [{ count: changed, indices, values }] = asTables([sparse]);
    if (!isSize(changed) || !isSize(count) || changed > count)
      return fail(`${where} claims ${String(changed)} of ${String(count)} elements`);
    const [[at], [to]] = [asTables([indices]), asTables([values])];
    const size = INDEX_BYTES[Number(at['componentType'])];
    if (size === undefined) return fail(`${where}.indices has the type ${String(at['componentType'])}`);
    const bytes = COMPONENT_BYTES[Number(componentType)] * COMPONENTS[String(type)];
    for (const [name, part, each] of [
      ['indices', at, size],
      ['values', to, bytes],
    ] as const) {
      const { bufferView, byteOffset = 0 } = part;
      const room = views[Number(bufferView)]?.['byteLength'];
      if (!isSize(byteOffset) || !isSize(room) || byteOffset + changed * each > room)
        return fail(
          `${where}.${name} claims ${changed} elements, bufferViews[${String(bufferView)}] has ${String(room)} bytes`,
        );
    }
    const view = views[Number(at['bufferView'])];
    const buffer = packedView(view['extensions']) ? undefined : bytesOf(Number(view['buffer'] ?? 0));
    if (!buffer) return;
    const from = Number(view['byteOffset'] ?? 0) + Number(at['byteOffset'] ?? 0);
    const read = new DataView(buffer.buffer, buffer.byteOffset + from, changed * size);
    for (let n = 0; n < changed; n++) {
      const element =
        size === 1 ? read.getUint8(n) : size === 2 ? read.getUint16(n * 2, true) : read.getUint32(n * 4, true);
      if (element >= count) return fail(`${where}.indices[${n}] is ${element}, must be below ${count}`);
    }
  });
}
