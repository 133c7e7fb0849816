import { GLB_BUFFER, Logger, Verbosity, type Document, type GLTF } from '@gltf-transform/core';
import { CoreError, errorText } from '../../errors';
import { parseJson } from '../../json/canonical-json';
import type { FindBeside } from '../files-beside';
import { decodedText } from '../format-spec';
import { gltfFiles } from '../gltf/gltf-files';
import { checkSparse } from './check-sparse';
import { checkTrees } from './check-trees';
import { glbIo, isReadExtension } from './glb-io';
import type { MeshDecoders } from './mesh-decoders';
import { checkClaims, openGlb } from './open-glb';

/** A file as it was read, with the names of the extensions that it uses. */
export interface OpenDocument {
  readonly document: Document;
  readonly used: readonly string[];
}

/** How a glTF stands in its file. */
export type GltfForm = 'glb' | 'gltf';

/**
 * Opens a glTF. Its values are as they stand, but what it claims to be long, and what would never end, was checked.
 * @param beside finds buffers and pictures that stand in files of their own
 * @throws CoreError 'GLB_UNREADABLE' naming what its header, a buffer view or an accessor claims, 'GLTF_FILE_MISSING', 'JSON_UNREADABLE',
 * 'GLB_DECODER' where what unpacks it cannot be loaded
 */
export async function openDocument(
  form: GltfForm,
  bytes: Uint8Array,
  beside: FindBeside,
  decoders: MeshDecoders,
): Promise<OpenDocument> {
  if (form === 'glb') {
    const { json, binary } = openGlb(bytes, false);
    return documentOf(json, beside, decoders, binary);
  }
  const json = parseJson(decodedText(bytes), 'gltf');
  if (typeof json !== 'object' || json === null || Array.isArray(json))
    throw new CoreError('GLB_UNREADABLE', 'gltf: must be a table at its top');
  return documentOf(json, beside, decoders, undefined);
}

async function documentOf(
  parsed: object,
  beside: FindBeside,
  decoders: MeshDecoders,
  binary: Uint8Array | undefined,
): Promise<OpenDocument> {
  const json = parsed as LookedAt;
  const { resources, bufferBytes, buffer } = gltfFiles(parsed, beside, binary);
  const format = binary ? 'glb' : 'gltf';
  const fail = (rule: string): never => {
    throw new CoreError('GLB_UNREADABLE', `${format}: ${rule}`);
  };
  checkClaims(parsed, binary && bufferBytes.length === 0 ? [binary.length] : bufferBytes, fail);
  checkSparse(parsed, buffer, fail);
  checkTrees(json.nodes, fail);
  const used = [...new Set([...namesOf(json.extensionsUsed), ...namesOf(json.extensionsRequired)])];
  const missing = namesOf(json.extensionsRequired).filter((name) => !isReadExtension(name));
  if (missing.length > 0) fail(`it needs ${missing.join(', ')}, which is not read; export it without`);
  try {
    if (binary && binary.length > 0) resources[GLB_BUFFER] = ownView(binary);
    const io = await glbIo(used, decoders);
    io.setLogger(new Logger(Verbosity.SILENT));
    return { document: await io.readJSON({ json: json as GLTF.IGLTF, resources }), used };
  } catch (cause) {
    if (cause instanceof CoreError) throw cause;
    throw new CoreError('GLB_UNREADABLE', `${format}: ${errorText(cause)}`, {}, { cause });
  }
}

/** The same bytes, not copied where they need not be: what stands in them is copied out. */
function ownView(bytes: Uint8Array): Uint8Array<ArrayBuffer> {
  const { buffer, byteOffset, byteLength } = bytes;
  return buffer instanceof ArrayBuffer ? new Uint8Array(buffer, byteOffset, byteLength) : new Uint8Array(bytes);
}

/** What this reader itself looks at in a glTF's JSON. */
interface LookedAt {
  readonly extensionsUsed?: unknown;
  readonly extensionsRequired?: unknown;
  readonly nodes?: unknown;
}

function namesOf(value: unknown): string[] {
  return Array.isArray(value) ? value.filter((one): one is string => typeof one === 'string') : [];
}
