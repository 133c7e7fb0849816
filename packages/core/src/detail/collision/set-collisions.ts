import type { RunContext } from '../../context/run-context';
import { CoreError } from '../../errors';
import { readGlb } from '../../formats/glb/read-glb';
import { writeGlb } from '../../formats/glb/write-glb';
import { sha256Hex } from '../../json/sha256';
import type { KitMeshes, MeshOfPiece } from '../../mesh/kit-meshes';
import { NUMBER_BYTES } from '../../mesh/mesh-cost';
import { collisionNodeName, type CollisionShape, type PieceCollision } from '../../model/kit';
import type { Box3 } from '../../model/vector';
import { COLLISIONS } from '.';
import { COLLISION_MAKERS } from './makers';
import type { CollisionMesh } from './collision-spec';
import { solidPart } from './welded-surface';

/** What shall stop and carry in a piece's place. */
export interface WantedCollision {
  /** Of the piece in its kit. */
  readonly name: string;
  readonly bounds: Box3;
  /** Null for nothing. */
  readonly shape: CollisionShape | null;
}

export interface SetCollisionsInput {
  readonly kit: Uint8Array;
  readonly pieces: readonly WantedCollision[];
}

/** What was made of it. */
export interface MadeCollision {
  readonly name: string;
  readonly collision: PieceCollision | null;
  /** Why it is not of the shape that was asked for; '' where it is. */
  readonly why: string;
}

/**
 * Gives pieces of a kit their collisions.
 * @throws CoreError 'COLLISION_PIECE' naming a piece that the kit lacks, 'GLB_UNREADABLE', 'CANCELLED'
 */
export async function setCollisions(
  { kit, pieces }: SetCollisionsInput,
  context: RunContext,
): Promise<{ readonly glb: Uint8Array; readonly collisions: readonly MadeCollision[] }> {
  context.progress(0, 'reading the kit');
  const { meshes, made } = withCollisions((await readGlb(kit)).meshes, pieces, context);
  context.progress(0.95, 'writing the kit');
  return { glb: await writeGlb(meshes), collisions: made };
}

/** The same on meshes that were read. */
export function withCollisions(
  kit: KitMeshes,
  pieces: readonly WantedCollision[],
  context: RunContext,
): { readonly meshes: KitMeshes; readonly made: readonly MadeCollision[] } {
  const byName = new Map(kit.pieces.map((piece) => [piece.name, piece]));
  const nodes = new Map<string, MeshOfPiece>();
  const gone = new Set<string>();
  const made = pieces.map((wanted, i): MadeCollision => {
    context.checkCancelled();
    context.progress(0.1 + (0.8 * i) / pieces.length, `collision of ${wanted.name}`);
    const mesh = byName.get(wanted.name);
    if (!mesh)
      throw new CoreError('COLLISION_PIECE', `collision: the kit’s GLB has no piece named ${wanted.name}`, {
        name: wanted.name,
      });
    const node = collisionNodeName(wanted.name);
    gone.add(node);
    const source = { bounds: wanted.bounds, mesh, own: byName.get(node), materials: kit.materials };
    let [shape, why] = [wanted.shape, ''];
    while (shape !== null) {
      const { make, lacking, instead } = COLLISION_MAKERS[shape];
      const solid = make(source, context);
      if (solid) {
        if (COLLISIONS[shape].node === 'own') nodes.set(wanted.name, { name: node, parts: [solidPart(solid)] });
        return { name: wanted.name, collision: costOf(shape, solid), why };
      }
      why = lacking ?? '';
      shape = instead ?? null;
    }
    return { name: wanted.name, collision: null, why };
  });
  const kept = kit.pieces.filter(({ name }) => !gone.has(name));
  return { meshes: { ...kit, pieces: kept.flatMap((piece) => [piece, nodes.get(piece.name) ?? []].flat()) }, made };
}

function costOf(shape: CollisionShape, { positions, indices, backs, outsideMetres }: CollisionMesh): PieceCollision {
  const all = new Uint8Array((positions.length + indices.length + backs.length) * 4);
  let at = 0;
  for (const list of [positions, indices, backs]) {
    all.set(new Uint8Array(list.buffer, list.byteOffset, list.byteLength), at);
    at += list.byteLength;
  }
  return {
    shape,
    triangles: indices.length / 3,
    vertices: positions.length / 3,
    bytes: (positions.length + indices.length) * NUMBER_BYTES,
    ...(outsideMetres > 0 ? { outsideMetres } : {}),
    digest: sha256Hex(all),
  };
}
