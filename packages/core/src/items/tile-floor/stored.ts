import { mixed, string } from 'yup';
import { MAX_TILE_SIDE } from '../../model/tile-floor';
import { finite, groupOf, id, vector, whole } from '../../fields/schema-parts';
import type { StoredSpec } from '../stored-spec';

const isRowTable = (v: unknown): boolean =>
  typeof v === 'object' &&
  v !== null &&
  !Array.isArray(v) &&
  Object.entries(v).every(
    ([row, text]) =>
      /^\d{1,3}$/.test(row) &&
      Number(row) < MAX_TILE_SIDE &&
      typeof text === 'string' &&
      text.length <= MAX_TILE_SIDE * 30,
  );

export const STORED_TILE_FLOOR: StoredSpec<'tileFloor'> = {
  fields: () => ({
    id: id(),
    name: string().defined().max(200),
    position: vector(),
    squareMetres: finite(0.01, 1000),
    columns: whole(1, MAX_TILE_SIDE),
    rows: whole(1, MAX_TILE_SIDE),
    squares: mixed<Record<string, unknown>>()
      .required()
      .meta({ jsonSchema: { type: 'object', additionalProperties: { type: 'string' } } })
      .test('rows', 'must be rows of squares by their numbers from 0', isRowTable),
    group: groupOf(),
  }),
};
