import type { Pin } from '../model/pin';
import type { Recipe, RecipeKind } from '../model/recipe';
import { parameterList } from './parameters';
import { BURROW } from './burrow/spec';
import type { RecipeInputs, RecipeSpec, RecipeSpecs } from './recipe-spec';

/** Every kind of recipe: a new one is a room and a line here. */
export const RECIPES: RecipeSpecs = { burrow: BURROW };

/** The kinds of recipe, in their order. */
export const RECIPE_KINDS = Object.keys(RECIPES) as readonly RecipeKind[];

/** What is known of a recipe's kind, for a recipe of which only the caller knows the kind. */
export function recipeSpec({ kind }: Pick<Recipe, 'kind'>): RecipeSpec<RecipeKind> {
  // Each kind has the spec that was made for it.
  return RECIPES[kind] as unknown as RecipeSpec<RecipeKind>;
}

/** All that a recipe reads, of the pins of its stratum its own. */
export function recipeInputs(recipe: Recipe, pins: Iterable<Pin>): RecipeInputs {
  const own = [...pins].filter((pin) => pin.recipe === recipe.id);
  return {
    version: recipeSpec(recipe).version,
    recipe,
    // Pins name the recipe that they are of, so that its kind is theirs.
    pins: own.sort((a, b) => (a.id < b.id ? -1 : 1)) as RecipeInputs['pins'],
  };
}

/** A recipe as it begins: every parameter as is usual. @param isFirst whether its level has no other */
export function newRecipe(
  kind: RecipeKind,
  {
    isFirst,
    seed,
    ...rest
  }: { readonly id: string; readonly name: string; readonly seed: string; readonly isFirst: boolean },
): Recipe {
  const usual = parameterList(RECIPES[kind].parameters).map(([field, parameter]) => [
    field,
    parameter.as === 'seed'
      ? seed
      : parameter.as === 'flag' && isFirst
        ? (parameter.first ?? parameter.usual)
        : parameter.usual,
  ]);
  // The descriptions of the parameters are complete by their type.
  return { ...rest, kind, ...Object.fromEntries(usual) } as Recipe;
}
