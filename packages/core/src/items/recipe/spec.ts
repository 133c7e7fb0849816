import type { ItemSpec } from '../item-spec';
import { GRID_PLACE } from '../place';

export const RECIPE: ItemSpec<'recipe'> = {
  words: { one: 'recipe', many: 'recipes' },
  traits: { local: false, assembled: false, linked: true, selected: false, copied: true, thing: true, named: true },
  optional: {},
  place: GRID_PLACE,
  name: ({ name }) => name,
  group: () => null,
  alike: () => true,
  ids: (fields) => fields,
};
