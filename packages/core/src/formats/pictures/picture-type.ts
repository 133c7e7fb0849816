import { JPEG, PNG, WEBP } from './spec';

/** Media types of pictures with the ending that each is kept under. */
export const PICTURE_TYPES = { 'image/png': 'png', 'image/jpeg': 'jpg', 'image/webp': 'webp' } as const;
export type PictureType = keyof typeof PICTURE_TYPES;

const SPECS = { 'image/png': PNG, 'image/jpeg': JPEG, 'image/webp': WEBP } as const;

/** What kind of picture bytes are, by how they begin; undefined for none that is taken. */
export function pictureType(bytes: Uint8Array): PictureType | undefined {
  return (Object.keys(SPECS) as PictureType[]).find((type) => SPECS[type].isOf(bytes));
}
