import { plainJson } from '../../json/plain-json';
import { CoreError } from '../../errors';
import { columnsOfPlain, plainColumns } from '../../items/placement/columns-json';
import { isJsonTable } from '../../model/json';
import { recipeInputs, recipeSpec } from '../../recipes';
import type { RecipeInputs, Section } from '../../recipes/recipe-spec';
import type { BakeSpec, LevelScene } from '../bake-spec';
import { sectionSubjects } from './needs-sections';
import { sectionSight } from './section-sight';
import { recipeOf } from './section-subject';

export const SECTION: BakeSpec<'section'> = {
  words: { one: 'section', many: 'sections' },
  version: 1,
  records: [],
  isMadeAtOnce: true,
  subjects: sectionSubjects,
  needs: () => [],
  reads,
  hashed: (reads) => plainJson(reads),
  make: (inputs, _needed, context) => recipeSpec(inputs.recipe).make(inputs, context),
  costMs: (inputs) => recipeSpec(inputs.recipe).cost(inputs).ms,
  parts: (section) => ({ sight: plainJson(sectionSight(section)) }),
  summary: ({ line, told, findings }) => ({ line, told, findings }),
  codec: {
    encode: ({ placements, ...section }) =>
      placements ? { ...section, placements: plainColumns(placements) } : section,
    decode: (plain) =>
      isJsonTable(plain) && 'placements' in plain
        ? { ...plain, placements: columnsOfPlain(plain['placements']) }
        : plain,
  },
  check: (value): value is Section =>
    isJsonTable(value) &&
    Number(value['version']) > 0 &&
    Array.isArray(value['blocks']) &&
    Array.isArray(value['markers']) &&
    Array.isArray(value['findings']) &&
    (!('placements' in value) || isJsonTable(value['placements'])),
};

function reads({ content: { strata } }: LevelScene, subject: string): RecipeInputs {
  const of = recipeOf(subject);
  const content = strata.find(({ stratum }) => stratum.id === of.stratum)?.content;
  const recipe = content?.recipe.find(({ id }) => id === of.recipe);
  if (!content || !recipe) throw new CoreError('RECIPE_MISSING', `section: there is no recipe ${of.recipe}`);
  return recipeInputs(recipe, content.pin);
}
