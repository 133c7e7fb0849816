import { strFromU8 } from 'fflate';
import { CoreError } from '../../errors';
import { parseJson } from '../canonical-json';

const GLB_MAGIC = 0x46546c67;
const JSON_CHUNK = 0x4e4f534a;

/**
 * Names of the nodes that carry a mesh in a GLB, without reading the meshes.
 * @throws CoreError 'GLB_UNREADABLE' naming what its header claims
 * Source: Khronos, glTF 2.0 specification, chapter 4.
 */
export function glbNodeNames(bytes: Uint8Array): string[] {
  const fail = (rule: string): never => {
    throw new CoreError('GLB_UNREADABLE', `glb: ${rule}`);
  };
  if (bytes.length < 20) fail(`needs at least 20 bytes, has ${bytes.length}`);
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (view.getUint32(0, true) !== GLB_MAGIC) fail('does not start as a GLB does');
  if (view.getUint32(4, true) !== 2) fail(`its version is ${view.getUint32(4, true)}, must be 2`);
  if (view.getUint32(8, true) !== bytes.length) fail(`claims ${view.getUint32(8, true)} bytes, has ${bytes.length}`);
  const length = view.getUint32(12, true);
  if (view.getUint32(16, true) !== JSON_CHUNK || 20 + length > bytes.length) fail(`its JSON claims ${length} bytes of ${bytes.length}`);
  const json = parseJson(strFromU8(bytes.subarray(20, 20 + length)), 'glb');
  const nodes = (json as { nodes?: unknown }).nodes;
  if (!Array.isArray(nodes)) return [];
  return nodes.flatMap((node: { name?: unknown; mesh?: unknown }) => (typeof node?.name === 'string' && typeof node.mesh === 'number' ? [node.name] : []));
}
