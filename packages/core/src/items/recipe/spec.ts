import type { ItemSpec } from '../item-spec';
import { GRID_PLACE } from '../place';
import { UNPLACED } from '../traits';

export const RECIPE: ItemSpec<'recipe'> = {
  words: { one: 'recipe', many: 'recipes' },
  traits: { ...UNPLACED, linked: true, named: true },
  optional: {},
  place: GRID_PLACE,
  name: ({ name }) => name,
  group: () => null,
  alike: () => true,
  ids: (fields) => fields,
};
