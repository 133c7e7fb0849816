import type { RunContext } from '../../context/run-context';
import type { StandingLevel } from '../../layout/standing-level';
import { recipeInputs, recipeSpec } from '../../recipes';
import type { RecipeInputs, Section } from '../../recipes/recipe-spec';
import type { MadeSection } from '../../sections/with-sections';
import type { BakeCache } from '../bake-cache';
import { bakeKey } from '../bake-key';

/** The section of a recipe, made where the cache does not hold it. @throws CoreError as the recipe does, 'CANCELLED' */
export function keptSection(inputs: RecipeInputs, cache: BakeCache, context: RunContext): Section {
  return cache.brought('section', bakeKey('section', inputs), () => recipeSpec(inputs.recipe).make(inputs, context));
}

/** The sections of all recipes of a level. @throws CoreError as the recipes do, 'CANCELLED' */
export function sectionsOfLevel(
  { strata }: Pick<StandingLevel, 'strata'>,
  cache: BakeCache,
  context: RunContext,
): MadeSection[] {
  return strata.flatMap(({ stratum, content }) =>
    content.recipe.map((recipe) => ({
      stratum: stratum.id,
      section: keptSection(recipeInputs(recipe, content.pin), cache, context),
    })),
  );
}
