import { IN_GROUP } from '../in-group';
import type { ItemSpec } from '../item-spec';
import { GRID_PLACE } from '../place';
import { STANDING } from '../traits';

export const TILE_FLOOR: ItemSpec<'tileFloor'> = {
  words: { one: 'tile floor', many: 'tile floors' },
  traits: { ...STANDING, assembled: false, named: true },
  optional: { group: true },
  place: GRID_PLACE,
  name: ({ name }) => name,
  ...IN_GROUP,
  alike: () => true,
};
