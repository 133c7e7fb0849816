import { ImageUtils } from '@gltf-transform/core';

/** Width and height of a PNG or JPEG, pixels; undefined for bytes that are none, or damaged. */
export function pictureSize(bytes: Uint8Array, mimeType: string): readonly [number, number] | undefined {
  try {
    return ImageUtils.getSize(bytes, mimeType) ?? undefined;
  } catch {
    // The reader of sizes runs over the end of damaged bytes.
    return undefined;
  }
}
