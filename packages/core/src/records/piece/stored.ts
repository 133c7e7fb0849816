import { array, type Schema } from 'yup';
import { box, finite, id, name, shape, whole } from '../../fields/schema-parts';
import type { StoredRecordSpec } from '../stored-spec';

export const STORED_PIECE: StoredRecordSpec<'piece'> = {
  fields: () => ({
    id: id(),
    kit: id(),
    name: name(),
    bounds: box(),
    steps: array()
      .of(
        shape({
          triangles: whole(0, 1e8),
          vertices: whole(0, 1e8),
          materials: whole(1, 1000),
          bytes: whole(0, 1e11),
          deviationMetres: finite(0, 1e6).optional() as Schema,
        }),
      )
      .required()
      .min(1)
      .max(16),
  }),
};
