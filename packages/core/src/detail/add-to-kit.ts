import { CoreError } from '../errors';
import { readGlb } from '../formats/glb/read-glb';
import { writeGlb } from '../formats/glb/write-glb';
import { joinedMeshes, prunedMeshes } from '../mesh/join-meshes';
import type { KitMeshes, MeshOfPiece } from '../mesh/kit-meshes';
import { STEP_NAME } from '../model/kit';
import type { Vector3 } from '../model/vector';

/** How a piece that was read goes into a kit. */
export interface AddedPiece {
  /** As its file has it. */
  readonly name: string;
  /** Its name in the kit, where it takes the place of the piece that has it already. */
  readonly as: string;
  /** What its mesh is moved by, metres. */
  readonly move?: Vector3;
}

export interface AddToKitInput {
  /** The kit's GLB, null for a new kit. */
  readonly kit: Uint8Array | null;
  /** A GLB with one node a piece, as `readPieces` makes it. */
  readonly added: Uint8Array;
  /** The pieces of it that go into the kit; those that are not named are left out. */
  readonly pieces: readonly AddedPiece[];
}

/**
 * A kit's GLB with more pieces. A piece whose name the kit has already takes that one's place, and its LODs go.
 * @throws CoreError 'KIT_ADDED' where a piece is not in the file, or two would have one name; 'GLB_UNREADABLE'
 */
export async function addToKit({ kit, added, pieces }: AddToKitInput): Promise<Uint8Array> {
  const { meshes: read } = await readGlb(added);
  const names = new Set(pieces.map(({ as }) => as));
  if (names.size < pieces.length)
    throw new CoreError('KIT_ADDED', 'kit: two pieces cannot become the same one; choose another for one of them');
  const byName = new Map(read.pieces.map((piece) => [piece.name, piece]));
  const more = { ...read, pieces: pieces.map((one) => asAdded(byName.get(one.name), one)) };
  if (!kit) return writeGlb(prunedMeshes(more));
  return writeGlb(prunedMeshes(joinedMeshes(withoutNamed((await readGlb(kit)).meshes, names), more)));
}

/** A kit's GLB without a piece and its LODs. @throws CoreError 'GLB_UNREADABLE' */
export async function removePieceFromKit({
  kit,
  name,
}: {
  readonly kit: Uint8Array;
  readonly name: string;
}): Promise<Uint8Array> {
  return writeGlb(prunedMeshes(withoutNamed((await readGlb(kit)).meshes, new Set([name]))));
}

function withoutNamed(meshes: KitMeshes, names: ReadonlySet<string>): KitMeshes {
  return { ...meshes, pieces: meshes.pieces.filter(({ name }) => !names.has(name.replace(STEP_NAME, ''))) };
}

function asAdded(piece: MeshOfPiece | undefined, { name, as, move }: AddedPiece): MeshOfPiece {
  if (!piece) throw new CoreError('KIT_ADDED', `kit: no piece called ${name} was read`, { name });
  if (!move) return { ...piece, name: as };
  const parts = piece.parts.map((part) => ({
    ...part,
    attributes: part.attributes.map((one) =>
      one.semantic === 'POSITION' ? { ...one, values: one.values.map((value, i) => value + move[i % 3]) } : one,
    ),
  }));
  return { name: as, parts };
}
