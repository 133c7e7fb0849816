import { JPEG, KTX2, PNG, WEBP } from './spec';

/** Media types of pictures with the ending that each is kept under. */
export const PICTURE_TYPES = { 'image/png': 'png', 'image/jpeg': 'jpg', 'image/webp': 'webp' } as const;
export type PictureType = keyof typeof PICTURE_TYPES;

const SPECS = { 'image/png': PNG, 'image/jpeg': JPEG, 'image/webp': WEBP } as const;

/** What kind of picture bytes are, by how they begin; undefined for none that is taken. */
export function pictureType(bytes: Uint8Array): PictureType | undefined {
  return (Object.keys(SPECS) as PictureType[]).find((type) => SPECS[type].isOf(bytes));
}

/** What kind of texture bytes are: a picture, or one that a graphics card takes as it is; undefined for none that is taken. */
export function textureType(bytes: Uint8Array): PictureType | 'image/ktx2' | undefined {
  return KTX2.isOf(bytes) ? 'image/ktx2' : pictureType(bytes);
}
