import { strToU8 } from 'fflate';
import { collisionNode } from '../detail/collision';
import { switchDistances } from '../detail/switch-distance';
import { canonicalJson } from '../json/canonical-json';
import { CoreError } from '../errors';
import type { RunContext } from '../context/run-context';
import type { Json } from '../model/json';
import type { MeshFiles, Target } from '../model/target';
import { stepNodeName, type Kit, type Piece, type PieceCollision } from '../model/kit';
import type { ViewSettings } from '../model/view-settings';
import { kitPackPath, meshPaths } from './mesh-paths';
import { packedMeshes, splitKit } from './split-kit';
import { packHead } from '../model/pack-format';

/** One file of a pack. */
export interface PackFile {
  /** Below the pack's folder, parts joined by '/'. */
  readonly path: string;
  readonly bytes: Uint8Array;
}

export interface PackKitInput {
  readonly kit: Kit;
  readonly pieces: readonly Piece[];
  readonly glb: Uint8Array;
  readonly view: ViewSettings;
  readonly meshFiles: MeshFiles;
  readonly compression?: Target['compression'];
}

/**
 * A kit: its meshes, in one GLB as it is or in one for each piece, and its pieces with the node and the switch distance of
 * every LOD.
 * @throws CoreError 'GLB_UNREADABLE', 'PACK_NODE_MISSING' naming a piece without meshes, 'CANCELLED'
 */
export async function packKit(
  { glb, compression, ...described }: PackKitInput,
  context: RunContext,
): Promise<PackFile[]> {
  const { kit, pieces, meshFiles } = described;
  const path = kitPackPath(kit);
  const file = { path: `${path}.json`, bytes: strToU8(canonicalJson(describeKit(described))) };
  if (meshFiles === 'perKit') return [{ path: `${path}.glb`, bytes: await packedMeshes(glb, compression) }, file];
  const paths = meshPaths(kit, pieces, meshFiles);
  const split = await splitKit(glb, context);
  const files: PackFile[] = [];
  for (const { id, name } of pieces) {
    context.checkCancelled();
    const bytes = split.get(name);
    const own = paths.get(id);
    if (!bytes || own === undefined)
      throw new CoreError('PACK_NODE_MISSING', `pack: the GLB of ${kit.name} has no node ${name}`, { piece: id });
    files.push({ path: own, bytes: await packedMeshes(bytes, compression) });
  }
  return [...files, file];
}

/** The file that describes a kit's pieces. */
export function describeKit({ kit, pieces, view, meshFiles }: Omit<PackKitInput, 'glb' | 'compression'>): Json {
  const paths = meshPaths(kit, pieces, meshFiles);
  const described = [...pieces]
    .sort((a, b) => (a.id < b.id ? -1 : 1))
    .map((piece): Json => {
      const distances = switchDistances(piece.steps, view);
      return {
        id: piece.id,
        name: piece.name,
        meshes: paths.get(piece.id) ?? null,
        bounds: { min: [...piece.bounds.min], max: [...piece.bounds.max] },
        steps: piece.steps.map(({ triangles, vertices, materials, bytes, deviationMetres }, i) => ({
          node: stepNodeName(piece.name, i),
          fromMetres: distances[i],
          deviationMetres: deviationMetres ?? 0,
          triangles,
          vertices,
          materials,
          bytes,
        })),
        ...(piece.collision ? { collision: describedCollision(piece, piece.collision) } : {}),
      };
    });
  return {
    ...packHead('stravel-pack-kit'),
    id: kit.id,
    key: kit.key,
    name: kit.name,
    view: { ...view },
    pieces: described,
  };
}

/** What a game is told of a collision; a box is the piece's bounds, all else a node of the kit's GLB. */
function describedCollision(
  { name }: Piece,
  { shape, triangles, vertices, bytes, outsideMetres }: PieceCollision,
): Json {
  return {
    shape,
    node: collisionNode(name, shape),
    triangles,
    vertices,
    bytes,
    outsideMetres: outsideMetres ?? 0,
  };
}
