import { isJsonTable } from '../../model/json';
import { MASK_TILE_PIXELS, MAX_MASK_SIDE, type Mask } from '../../model/mask';
import { text, finite, whole, told } from '../../fields/field';
import { id, vector, groupOf } from '../../fields/known-fields';
import type { StoredSpec } from '../stored-spec';

const MAX_TILE_TEXT = 2 * MASK_TILE_PIXELS * MASK_TILE_PIXELS;

/** Tiles are read pixel by pixel where they are used; here it is enough that they are runs and lie on the mask. */
const isTileTable = (v: unknown): boolean =>
  isJsonTable(v) &&
  Object.entries(v).every(
    ([tile, text]) =>
      /^\d{1,2}-\d{1,2}$/.test(tile) &&
      typeof text === 'string' &&
      text.length <= MAX_TILE_TEXT &&
      /^(\d{1,5}( \d{1,5})*)?$/.test(text),
  );

export const STORED_MASK: StoredSpec<'mask'> = {
  packed: 'own form',
  fields: () => ({
    id: id(),
    name: text({ max: 200 }),
    position: vector(),
    pixelsPerMetre: finite(0.001, 1000),
    columns: whole(1, MAX_MASK_SIDE),
    rows: whole(1, MAX_MASK_SIDE),
    tiles: told<Mask['tiles']>(
      { type: 'object', additionalProperties: { type: 'string' } },
      { name: 'tiles', message: 'must be runs of pixels by their tiles', holds: isTileTable },
    ),
    group: groupOf(),
  }),
};
