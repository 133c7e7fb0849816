import { finite, flag, oneOf, shape, text, variants, whole, type Checked, type Shape } from '../../fields/field';
import { id, name, vector } from '../../fields/known-fields';
import type { Recipe } from '../../model/recipe';
import { RECIPES, RECIPE_KINDS } from '../../recipes';
import { parameterList, type Parameter } from '../../recipes/parameters';
import type { StoredSpec } from '../stored-spec';

export const STORED_RECIPE: StoredSpec<'recipe'> = {
  packed: null,
  shape: () => variants<Recipe>('kind', new Map(RECIPE_KINDS.map((kind) => [kind, shapeOfKind(kind)]))),
};

/** The fields of a kind, from the descriptions of its parameters. */
function shapeOfKind(kind: (typeof RECIPE_KINDS)[number]): Shape<Recipe> {
  const fields: Record<string, Checked> = { id: id(), name: name(), kind: oneOf([kind]) };
  for (const [field, parameter] of parameterList(RECIPES[kind].parameters)) fields[field] = fieldOf(parameter);
  // The descriptions are complete by their type.
  return shape<Recipe>(fields as unknown as Parameters<typeof shape<Recipe>>[0]);
}

function fieldOf(parameter: Parameter): Checked {
  switch (parameter.as) {
    case 'number':
      return parameter.isWhole ? whole(parameter.least, parameter.most) : finite(parameter.least, parameter.most);
    case 'flag':
      return flag();
    case 'name':
      return name();
    case 'seed':
      return text({ min: 1, max: parameter.mostLetters });
    case 'corner':
      return vector();
  }
}
