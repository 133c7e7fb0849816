import type { Recipe } from '../../model/recipe';
import { recipeSpec } from '../../recipes';
import type { ItemSpec } from '../item-spec';
import type { Place } from '../place';
import { UNPLACED } from '../traits';

/** Each kind of recipe lies in its own way. */
const PLACE: Place<Recipe> = {
  anchor: (recipe) => recipeSpec(recipe).place.anchor(recipe),
  moved: (recipe, by) => recipeSpec(recipe).place.moved(recipe, by),
  turned: (recipe, turning) => recipeSpec(recipe).place.turned(recipe, turning),
  mirrored: (recipe, mirroring) => recipeSpec(recipe).place.mirrored(recipe, mirroring),
};

export const RECIPE: ItemSpec<'recipe'> = {
  words: { one: 'recipe', many: 'recipes' },
  traits: { ...UNPLACED, linked: true, named: true },
  optional: {},
  place: PLACE,
  name: ({ name }) => name,
  group: () => null,
  alike: () => true,
  ids: (fields) => fields,
};
