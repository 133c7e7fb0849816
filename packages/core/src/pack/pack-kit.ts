import { strToU8 } from 'fflate';
import { collisionNode } from '../detail/collision';
import { switchDistances } from '../detail/switch-distance';
import { canonicalJson } from '../json/canonical-json';
import type { Json } from '../model/json';
import { stepNodeName, type Kit, type Piece, type PieceCollision } from '../model/kit';
import type { ViewSettings } from '../model/view-settings';

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
}

/** Path of a kit's files, without ending. */
export function kitPackPath({ key }: Kit): string {
  return `kits/${key}`;
}

/** A kit: its GLB as it is, and its pieces with the node and the switch distance of every step. */
export function packKit({ glb, ...described }: PackKitInput): PackFile[] {
  const path = kitPackPath(described.kit);
  return [
    { path: `${path}.glb`, bytes: glb },
    { path: `${path}.json`, bytes: strToU8(canonicalJson(describeKit(described))) },
  ];
}

/** The file that describes a kit's pieces. */
export function describeKit({ kit, pieces, view }: Omit<PackKitInput, 'glb'>): Json {
  const described = [...pieces]
    .sort((a, b) => (a.id < b.id ? -1 : 1))
    .map((piece): Json => {
      const distances = switchDistances(piece.steps, view);
      return {
        id: piece.id,
        name: piece.name,
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
    format: 'stravel-pack-kit',
    version: 1,
    id: kit.id,
    key: kit.key,
    name: kit.name,
    meshes: `${kitPackPath(kit)}.glb`,
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
