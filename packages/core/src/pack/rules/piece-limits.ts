import { counted } from '../../counted';
import type { Piece } from '../../model/kit';
import { NO_ROOM, refusedPiece, type PackRule } from './rule';

/** Length of a piece's longest side, metres. */
function longestSide({ bounds: { min, max } }: Piece): number {
  return Math.max(...[0, 1, 2].map((k) => max[k] - min[k]));
}

export const PIECE_SIZE: PackRule = {
  piece: ({ piece }, { min, max }, { target }) => {
    const size = longestSide(piece);
    if (size >= min && size <= max) return [];
    return [
      refusedPiece(
        piece,
        'PACK_PIECE_SIZE',
        `${piece.name} is ${Number(size.toPrecision(3))} m long; ${target.name} takes ${min} to ${max} m`,
        'It was most likely made in another unit. Import its file again with the right unit.',
      ),
    ];
  },
};

export const PIECE_TRIANGLES: PackRule = {
  piece: ({ piece }, { max }, { target }) => {
    const [{ triangles }] = piece.steps;
    if (triangles <= max) return [];
    const message = `${piece.name} has ${counted(triangles, 'triangle')}; ${target.name} takes ${max}`;
    return [refusedPiece(piece, 'PACK_PIECE_TRIANGLES', message, NO_ROOM)];
  },
};

export const PIECE_MATERIALS: PackRule = {
  piece: ({ piece }, { max }, { target }) => {
    const [{ materials }] = piece.steps;
    if (materials <= max) return [];
    const message = `${piece.name} has ${counted(materials, 'material')}; ${target.name} takes ${max}`;
    return [refusedPiece(piece, 'PACK_PIECE_MATERIALS', message, 'Every material is a draw call of its own.')];
  },
};
