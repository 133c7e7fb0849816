import { WebIO, type Extension } from '@gltf-transform/core';
import {
  EXTMeshGPUInstancing,
  EXTMeshoptCompression,
  EXTTextureWebP,
  KHRLightsPunctual,
  KHRMeshQuantization,
  KHRTextureBasisu,
  KHRTextureTransform,
} from '@gltf-transform/extensions';
import { MeshoptDecoder } from 'meshoptimizer/decoder';
import { MATERIAL_EXTENSION, keptExtension } from './material-extension';

/** Extensions that are read or told one by one. */
const READ = [
  EXTMeshGPUInstancing,
  EXTMeshoptCompression,
  EXTTextureWebP,
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

/** Reads and writes glTF with the extensions that it uses. @param used their names */
export async function glbIo(used: readonly string[]): Promise<WebIO> {
  const kept = used.filter((name) => MATERIAL_EXTENSION.test(name)).map(keptExtension);
  const io = new WebIO().registerExtensions([...READ, ...kept]);
  if (!used.includes(EXTMeshoptCompression.EXTENSION_NAME)) return io;
  await MeshoptDecoder.ready;
  return io.registerDependencies({ 'meshopt.decoder': MeshoptDecoder });
}
