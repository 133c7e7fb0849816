import { CoreError } from '../errors';
import { readGlb } from '../formats/glb/read-glb';
import { writeGlb } from '../formats/glb/write-glb';
import { pieceOfNode } from '../model/kit';
import { MAX_PIECE_NAME_LENGTH, plainPieceName } from './piece-name';

export interface RenamePiecesInput {
  /** The kit's GLB. */
  readonly kit: Uint8Array;
  /** All at once: one may get the name that another loses. */
  readonly names: readonly { readonly from: string; readonly to: string }[];
}

/** Why a piece cannot have a name, in a sentence; '' when it can. @param others names of the kit's other pieces */
export function pieceNameFault(name: string, others: Iterable<string>): string {
  if (name.trim() === '') return 'A piece needs a name.';
  if (name.length > MAX_PIECE_NAME_LENGTH)
    return `A name has at most ${MAX_PIECE_NAME_LENGTH} characters; this one has ${name.length}.`;
  if (plainPieceName(name) !== name)
    return 'A name has letters from A to Z, digits, spaces, - and _: files are named by it.';
  const taken = [...others].find((other) => other.toLowerCase() === name.toLowerCase());
  return taken === undefined ? '' : `The kit has a piece called ${taken}.`;
}

/**
 * A kit's GLB in which pieces have other names, their LODs and collisions with them.
 * @throws CoreError 'PIECE_NAME' where one cannot be called so or there is no such piece, 'GLB_UNREADABLE'
 */
export async function renamePieces({ kit, names }: RenamePiecesInput): Promise<Uint8Array> {
  const { meshes } = await readGlb(kit);
  const called = new Set(meshes.pieces.map(({ name }) => pieceOfNode(name)));
  for (const { from } of names)
    if (!called.delete(from))
      throw new CoreError('PIECE_NAME', `rename: the kit has no piece called ${from}`, { from });
  for (const { to } of names) {
    const fault = pieceNameFault(to, called);
    if (fault !== '') throw new CoreError('PIECE_NAME', `rename: ${fault}`, { to });
    called.add(to);
  }
  const after = new Map(names.map(({ from, to }) => [from, to]));
  const pieces = meshes.pieces.map((piece) => {
    const from = pieceOfNode(piece.name);
    const to = after.get(from);
    return to === undefined ? piece : { ...piece, name: to + piece.name.slice(from.length) };
  });
  return writeGlb({ ...meshes, pieces });
}
