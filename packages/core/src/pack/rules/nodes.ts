import { collisionNode } from '../../detail/collision';
import { stepNodeName, type Piece } from '../../model/kit';
import type { Finding } from '../../findings';
import type { KitInspection } from '../inspect-kit';
import { refusedPiece, type PackRule } from './rule';

/** Names of the nodes that a piece's meshes stand in: its LODs', then its collision's. */
function nodesOf(piece: Piece): { readonly nodes: readonly string[]; readonly collision: string | undefined } {
  const collision = (piece.collision && collisionNode(piece.name, piece.collision.shape)) ?? undefined;
  const steps = piece.steps.map((_step, i) => stepNodeName(piece.name, i));
  return { nodes: collision === undefined ? steps : [...steps, collision], collision };
}

/** What no target does without: the meshes that a piece's record tells of. */
export function missingNodes(piece: Piece, inspection: KitInspection | undefined): Finding[] {
  const { nodes, collision } = nodesOf(piece);
  const lost = inspection && nodes.find((name) => !inspection.nodes.includes(name));
  if (lost === undefined) return [];
  return [
    refusedPiece(
      piece,
      'PACK_NODE_MISSING',
      `The kit’s GLB has no node ${lost} for ${piece.name}`,
      lost === collision
        ? 'Nothing would be stopped or carried by it in the game. Set its collision again on the Detail desk.'
        : 'The LOD would be missing in the game. Build the LODs again on the Detail desk.',
    ),
  ];
}

export const NODE_TRANSFORMS: PackRule = {
  piece: ({ piece, inspection }) => {
    const moved = inspection && nodesOf(piece).nodes.find((name) => inspection.movedNodes.includes(name));
    if (moved === undefined) return [];
    return [
      refusedPiece(
        piece,
        'PACK_NODE_MOVED',
        `The node ${moved} of ${piece.name} has a transform in its kit’s GLB`,
        'Placements would be somewhere else in the game than here. Import the piece’s file again on the Detail desk.',
      ),
    ];
  },
};

export const TILING: PackRule = {
  piece: ({ piece, inspection }, { max }, { target }) => {
    const repeats = Math.max(
      0,
      ...nodesOf(piece).nodes.flatMap((name) =>
        inspection?.repeats.has(name) ? [inspection.repeats.get(name) ?? 0] : [],
      ),
    );
    if (repeats <= max) return [];
    return [
      refusedPiece(
        piece,
        'PACK_TILING',
        `Textures repeat ${Number(repeats.toPrecision(3))} times over ${piece.name}; ${target.name} takes ${max}`,
        'The game could not put its textures into a shared picture. Divide the mesh, or its texture coordinates, and import it again.',
      ),
    ];
  },
};
