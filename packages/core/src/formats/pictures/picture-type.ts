export const PICTURE_TYPES = { 'image/png': 'png', 'image/jpeg': 'jpg', 'image/webp': 'webp' } as const;
export type PictureType = keyof typeof PICTURE_TYPES;

/** What kind of picture bytes are, by how they begin; undefined for none that is taken. */
export function pictureType(bytes: Uint8Array): PictureType | undefined {
  const begins = (at: number, ...wanted: readonly number[]): boolean =>
    wanted.every((byte, i) => bytes[at + i] === byte);
  if (begins(0, 0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a)) return 'image/png';
  if (begins(0, 0xff, 0xd8, 0xff)) return 'image/jpeg';
  if (begins(0, 0x52, 0x49, 0x46, 0x46) && begins(8, 0x57, 0x45, 0x42, 0x50)) return 'image/webp';
  return undefined;
}
