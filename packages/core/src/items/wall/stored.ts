import { finite, flag, list, oneOf, ruled, shape, text, type Field } from '../../fields/field';
import {
  MAX_WALL_CORNERS,
  MAX_WALL_OPENINGS,
  coordinate,
  groupOf,
  hasOwnIds,
  id,
  name,
  planPoint,
} from '../../fields/known-fields';
import { BLOCK_SIGHTS } from '../../model/block';
import type { Wall, WallCorner, WallOpening } from '../../model/wall';
import { pickedForm } from '../packed-form';
import type { StoredSpec } from '../stored-spec';

const metres = (min: number): Field<number> => finite(min, 10000);

export const STORED_WALL: StoredSpec<'wall'> = {
  // Its blocks are packed as such; their ids begin with the wall's and a dot.
  packed: pickedForm<Wall>('walls', ['id', 'name']),
  fields: () => ({
    id: id(),
    name: text({ max: 200 }),
    corners: ruled<readonly WallCorner[]>(
      list(shape<WallCorner>({ id: id(), position: planPoint() }), { min: 2, max: MAX_WALL_CORNERS }),
      { name: 'corner-ids', message: 'corners must have an id each', holds: hasOwnIds },
    ),
    closed: flag(),
    baseMetres: coordinate(),
    heightMetres: metres(0.01),
    thicknessMetres: finite(0.01, 100),
    openings: ruled<readonly WallOpening[]>(
      list(
        shape<WallOpening>({
          id: id(),
          corner: id(),
          offsetMetres: metres(0),
          widthMetres: metres(0.01),
          sillMetres: metres(0),
          headMetres: metres(0.01),
        }),
        { max: MAX_WALL_OPENINGS },
      ),
      { name: 'opening-ids', message: 'openings must have an id each', holds: hasOwnIds },
    ),
    floorMetres: finite(0, 100),
    ceilingMetres: finite(0, 100),
    sight: oneOf(BLOCK_SIGHTS),
    material: name(),
    group: groupOf(),
  }),
};
