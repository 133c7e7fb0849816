import { EXTMeshoptCompression } from '@gltf-transform/extensions';
import { MeshoptEncoder } from 'meshoptimizer/encoder';
import { openGlb } from './open-glb';
import { glbIo } from './glb-io';

/**
 * The same GLB with its vertices and indices packed by EXT_meshopt_compression: every number is what it was, triangles are in
 * their order. Equal input gives equal bytes.
 * @throws CoreError 'GLB_UNREADABLE'
 */
export async function compressGlb(glb: Uint8Array): Promise<Uint8Array> {
  const { extensionsUsed } = openGlb(glb).json as { readonly extensionsUsed?: readonly unknown[] };
  await MeshoptEncoder.ready;
  const io = await glbIo((extensionsUsed ?? []).map(String));
  io.registerDependencies({ 'meshopt.encoder': MeshoptEncoder });
  const document = await io.readBinary(glb);
  document
    .createExtension(EXTMeshoptCompression)
    .setRequired(true)
    .setEncoderOptions({ method: EXTMeshoptCompression.EncoderMethod.QUANTIZE });
  return io.writeBinary(document);
}
