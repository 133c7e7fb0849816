import { mixed, string } from 'yup';
import { MASK_TILE_PIXELS, MAX_MASK_SIDE } from '../../model/mask';
import { finite, groupOf, id, vector, whole } from '../../fields/schema-parts';
import type { StoredSpec } from '../stored-spec';

const MAX_TILE_TEXT = 2 * MASK_TILE_PIXELS * MASK_TILE_PIXELS;

/** Tiles are read pixel by pixel where they are used; here it is enough that they are runs and lie on the mask. */
const isTileTable = (v: unknown): boolean =>
  typeof v === 'object' &&
  v !== null &&
  !Array.isArray(v) &&
  Object.entries(v).every(
    ([tile, text]) =>
      /^\d{1,2}-\d{1,2}$/.test(tile) &&
      typeof text === 'string' &&
      text.length <= MAX_TILE_TEXT &&
      /^(\d{1,5}( \d{1,5})*)?$/.test(text),
  );

export const STORED_MASK: StoredSpec<'mask'> = {
  fields: () => ({
    id: id(),
    name: string().defined().max(200),
    position: vector(),
    pixelsPerMetre: finite(0.001, 1000),
    columns: whole(1, MAX_MASK_SIDE),
    rows: whole(1, MAX_MASK_SIDE),
    tiles: mixed<Record<string, unknown>>()
      .required()
      .meta({ jsonSchema: { type: 'object', additionalProperties: { type: 'string' } } })
      .test('tiles', 'must be runs of pixels by their tiles', isTileTable),
    group: groupOf(),
  }),
};
