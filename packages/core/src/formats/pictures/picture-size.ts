import { ImageUtils } from '@gltf-transform/core';
import { EXTTextureWebP, KHRTextureBasisu } from '@gltf-transform/extensions';

// Their headers are known to the reader of sizes from now on.
EXTTextureWebP.register();
KHRTextureBasisu.register();

/** Width and height of a picture or a KTX2 texture by its header, pixels; undefined for bytes that are none, or damaged. */
export function pictureSize(bytes: Uint8Array, mimeType: string): readonly [number, number] | undefined {
  try {
    return ImageUtils.getSize(bytes, mimeType) ?? undefined;
  } catch {
    // The reader of sizes runs over the end of damaged bytes.
    return undefined;
  }
}

/** Bytes of a KTX2 texture in memory, with the mips that it has, by its header; undefined for bytes that are none, or damaged. */
export function ktx2MemoryBytes(bytes: Uint8Array): number | undefined {
  try {
    return ImageUtils.getVRAMByteLength(new Uint8Array(bytes), 'image/ktx2') ?? undefined;
  } catch {
    return undefined;
  }
}
