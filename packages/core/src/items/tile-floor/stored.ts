import { TEXT_SCHEMA, listOf } from '../../json/schema-parts';
import { squaresOfRow } from './squares-of-row';
import { isJsonTable } from '../../model/json';
import { MAX_TILE_SIDE, type TileFloor } from '../../model/tile-floor';
import { text, finite, whole, told } from '../../fields/field';
import { id, vector, groupOf } from '../../fields/known-fields';
import type { StoredSpec } from '../stored-spec';

const isRowTable = (v: unknown): boolean =>
  isJsonTable(v) &&
  Object.entries(v).every(
    ([row, text]) =>
      /^\d{1,3}$/.test(row) &&
      Number(row) < MAX_TILE_SIDE &&
      typeof text === 'string' &&
      text.length <= MAX_TILE_SIDE * 30,
  );

export const STORED_TILE_FLOOR: StoredSpec<'tileFloor'> = {
  packed: {
    list: 'tileFloors',
    of: ({ id, name, position, squareMetres, columns, rows, squares }) => ({
      id,
      name,
      position: [...position],
      squareMetres,
      squares: Array.from({ length: rows }, (_unused, row) => squaresOfRow(squares[String(row)], columns)),
    }),
    told: ({ id: own, name, position, squareMetres }) => ({
      id: own,
      name,
      position,
      squareMetres,
      squares: listOf(listOf(TEXT_SCHEMA)),
    }),
  },
  fields: () => ({
    id: id(),
    name: text({ max: 200 }),
    position: vector(),
    squareMetres: finite(0.01, 1000),
    columns: whole(1, MAX_TILE_SIDE),
    rows: whole(1, MAX_TILE_SIDE),
    squares: told<TileFloor['squares']>(
      { type: 'object', additionalProperties: { type: 'string' } },
      { name: 'rows', message: 'must be rows of squares by their numbers from 0', holds: isRowTable },
    ),
    group: groupOf(),
  }),
};
