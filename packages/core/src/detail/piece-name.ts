export const MAX_PIECE_NAME_LENGTH = 100;

/** A name without characters that no file may have, and without dots, which tell LODs apart in a kit's GLB; '' where nothing is left. */
export function plainPieceName(name: string): string {
  return name
    .trim()
    .replace(/[^A-Za-z0-9 _-]+/g, '-')
    .slice(0, MAX_PIECE_NAME_LENGTH);
}
