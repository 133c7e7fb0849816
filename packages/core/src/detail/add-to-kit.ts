import { CoreError } from '../errors';
import { readGlb } from '../formats/glb/read-glb';
import { writeGlb } from '../formats/glb/write-glb';
import { joinedMeshes, prunedMeshes } from '../mesh/join-meshes';
import type { KitMeshes, MeshOfPiece } from '../mesh/kit-meshes';
import { collisionNodeName, isCollisionNode, pieceOfNode, type CollisionShape } from '../model/kit';
import type { Box3, Vector3 } from '../model/vector';
import type { RunContext } from '../context/run-context';
import { meshBounds } from '../mesh/mesh-cost';
import { movePart } from '../mesh/place-part';
import { withCollisions, type MadeCollision } from './collision/set-collisions';

/** How a piece that was read goes into a kit. */
export interface AddedPiece {
  /** As its file has it. */
  readonly name: string;
  /** Its name in the kit, where it takes the place of the piece that has it already. */
  readonly as: string;
  /** What its mesh is moved by, metres. */
  readonly move?: Vector3;
  /** How what stops and carries in its place is made; absent where nothing does. */
  readonly collision?: CollisionShape;
}

export interface AddToKitInput {
  /** The kit's GLB, null for a new kit. */
  readonly kit: Uint8Array | null;
  /** A GLB with one node a piece, as `readPieces` makes it. */
  readonly added: Uint8Array;
  /** The pieces of it that go into the kit; those that are not named are left out. */
  readonly pieces: readonly AddedPiece[];
}

export interface AddedToKit {
  readonly glb: Uint8Array;
  /** The collisions that were made for added pieces. */
  readonly collisions: readonly MadeCollision[];
}

/**
 * A kit's GLB with more pieces. A piece whose name the kit has already takes that one's place, and its LODs go. So does its collision,
 * but for a mesh of its own that the file has no other for.
 * @throws CoreError 'KIT_ADDED' where a piece is not in the file, or two would have one name; 'GLB_UNREADABLE', 'CANCELLED'
 */
export async function addToKit({ kit, added, pieces }: AddToKitInput, context: RunContext): Promise<AddedToKit> {
  const { meshes: read } = await readGlb(added);
  const names = new Set(pieces.map(({ as }) => as));
  if (names.size < pieces.length)
    throw new CoreError('KIT_ADDED', 'kit: two pieces cannot become the same one; choose another for one of them');
  const byName = new Map(read.pieces.map((piece) => [piece.name, piece]));
  const more = pieces.flatMap((one) => {
    const own = byName.get(collisionNodeName(one.name));
    return [
      asAdded(byName.get(one.name), one),
      ...(own ? [asAdded(own, { ...one, as: collisionNodeName(one.as) })] : []),
    ];
  });
  const had = kit ? (await readGlb(kit)).meshes : NO_MESHES;
  const brought = new Set(more.map(({ name }) => name));
  const isKept = (name: string): boolean =>
    !names.has(pieceOfNode(name)) || (isCollisionNode(name) && !brought.has(name));
  const joined = joinedMeshes(
    { ...had, pieces: had.pieces.filter(({ name }) => isKept(name)) },
    { ...read, pieces: more },
  );
  const wanted = pieces.map(({ as, collision }) => ({
    name: as,
    shape: collision ?? null,
    bounds: boundsOf(more, as),
  }));
  const { meshes, made } = withCollisions(joined, wanted, context);
  return { glb: await writeGlb(prunedMeshes(meshes)), collisions: made };
}

const NO_MESHES: KitMeshes = { pieces: [], materials: [], textures: [] };

function boundsOf(pieces: readonly MeshOfPiece[], name: string): Box3 {
  const piece = pieces.find((one) => one.name === name);
  if (!piece) throw new CoreError('KIT_ADDED', `kit: no piece called ${name} was read`, { name });
  return meshBounds(piece);
}

/** A kit's GLB without a piece and its LODs. @throws CoreError 'GLB_UNREADABLE' */
export async function removePieceFromKit({
  kit,
  name,
}: {
  readonly kit: Uint8Array;
  readonly name: string;
}): Promise<Uint8Array> {
  const { meshes } = await readGlb(kit);
  const pieces = meshes.pieces.filter((piece) => pieceOfNode(piece.name) !== name);
  return writeGlb(prunedMeshes({ ...meshes, pieces }));
}

function asAdded(piece: MeshOfPiece | undefined, { name, as, move }: AddedPiece): MeshOfPiece {
  if (!piece) throw new CoreError('KIT_ADDED', `kit: no piece called ${name} was read`, { name });
  return { ...piece, name: as, parts: move ? piece.parts.map((part) => movePart(part, move)) : piece.parts };
}
