import { COLLISION_SHAPES, MAX_PIECE_MATERIALS, type PieceCollision, type PieceStep } from '../../model/kit';
import { finite, whole, list, oneOf, shape, orAbsent, later, text } from '../../fields/field';
import { id, name, box, vector } from '../../fields/known-fields';
import type { StoredRecordSpec } from '../stored-spec';

export const STORED_PIECE: StoredRecordSpec<'piece'> = {
  fields: () => ({
    id: id(),
    kit: id(),
    name: name(),
    bounds: box(),
    steps: list(
      shape<PieceStep>({
        triangles: whole(0, 1e8),
        vertices: whole(0, 1e8),
        materials: whole(1, MAX_PIECE_MATERIALS),
        bytes: whole(0, 1e11),
        deviationMetres: orAbsent(finite(0, 1e6)),
      }),
      { min: 1, max: 16 },
    ),
    movedOrigin: later(vector()),
    collision: later(
      shape<PieceCollision>({
        shape: oneOf(COLLISION_SHAPES),
        triangles: whole(0, 1e8),
        vertices: whole(0, 1e8),
        bytes: whole(0, 1e11),
        outsideMetres: later(finite(0, 1e6)),
        digest: text({ pattern: { matches: /^[0-9a-f]{64}$/, message: 'must be a SHA-256, hexadecimal' } }),
      }),
    ),
  }),
};
