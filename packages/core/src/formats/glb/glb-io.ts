import { WebIO, type Extension } from '@gltf-transform/core';
import {
  EXTMeshGPUInstancing,
  EXTMeshoptCompression,
  EXTTextureWebP,
  KHRDracoMeshCompression,
  KHRLightsPunctual,
  KHRMeshQuantization,
  KHRTextureBasisu,
  KHRTextureTransform,
} from '@gltf-transform/extensions';
import { MeshoptDecoder } from 'meshoptimizer/decoder';
import { CoreError } from '../../errors';
import { MATERIAL_EXTENSION, keptExtension } from './material-extension';
import type { MeshDecoders } from './mesh-decoders';

/** Extensions that are read or told one by one. */
const READ = [
  EXTMeshGPUInstancing,
  EXTMeshoptCompression,
  EXTTextureWebP,
  KHRDracoMeshCompression,
  KHRLightsPunctual,
  KHRMeshQuantization,
  KHRTextureBasisu,
  KHRTextureTransform,
] as const satisfies readonly (typeof Extension)[];

const READ_NAMES: ReadonlySet<string> = new Set(READ.map(({ EXTENSION_NAME }) => EXTENSION_NAME));

/** Whether what an extension says is read. */
export function isReadExtension(name: string): boolean {
  return READ_NAMES.has(name) || MATERIAL_EXTENSION.test(name);
}

/**
 * Reads and writes glTF with the extensions that it uses.
 * @param used their names
 * @throws CoreError 'GLB_DECODER' where the decoder of packed meshes cannot be loaded
 */
export async function glbIo(used: readonly string[], { draco }: MeshDecoders = {}): Promise<WebIO> {
  const kept = used.filter((name) => MATERIAL_EXTENSION.test(name)).map(keptExtension);
  const io = new WebIO().registerExtensions([...READ, ...kept]);
  if (used.includes(EXTMeshoptCompression.EXTENSION_NAME)) {
    await MeshoptDecoder.ready;
    io.registerDependencies({ 'meshopt.decoder': MeshoptDecoder });
  }
  if (used.includes(KHRDracoMeshCompression.EXTENSION_NAME))
    io.registerDependencies({ 'draco3d.decoder': await loaded(draco) });
  return io;
}

async function loaded(draco: MeshDecoders['draco']): Promise<unknown> {
  try {
    if (draco) return await draco();
  } catch (cause) {
    throw new CoreError(
      'GLB_DECODER',
      'glb: it is packed with Draco, and the decoder could not be loaded; try again, or export it without',
      {},
      { cause },
    );
  }
  throw new CoreError('GLB_DECODER', 'glb: it is packed with Draco, which is not read here; export it without');
}
