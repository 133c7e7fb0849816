import { overIds } from '../ids';
import type { ItemSpec } from '../item-spec';
import { GRID_PLACE } from '../place';

export const TILE_FLOOR: ItemSpec<'tileFloor'> = {
  words: { one: 'tile floor', many: 'tile floors' },
  traits: { local: true, assembled: false, linked: true, selected: true, copied: true, thing: true, named: true },
  optional: { group: true },
  place: GRID_PLACE,
  name: ({ name }) => name,
  group: ({ group }) => group ?? null,
  alike: () => true,
  ids: (fields, each) => overIds(fields, each, { group: { to: 'group' } }),
};
