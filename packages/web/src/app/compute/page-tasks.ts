import {
  createTasks,
  type BakeCache,
  type BakeKind,
  type BakeRef,
  type BroughtBake,
  type CutLevel,
  type LevelScene,
  type RunContext,
  type Tasks,
  bakeKey,
  recipeInputs,
  type LevelContent,
} from '@stravel/core';
import type { HeldDocuments, HeldLevel } from './held-documents';
import type { SectionExchange } from './section-exchange';

/** A level with all that its bakes are made from, but for what its strata hold. */
export type HeldScene = Omit<LevelScene, 'content'> & { readonly level: HeldLevel };

type CutInput = Parameters<Tasks['cut-level']>[0];

/** What the page's workers can do: what the core does, and the same for levels whose documents they hold. */
// eslint-disable-next-line @typescript-eslint/explicit-function-return-type -- the table says what each task takes and gives
export function createPageTasks(cache: BakeCache, held: HeldDocuments, exchange: SectionExchange) {
  const tasks = createTasks(cache);
  const contentOf = async (level: HeldLevel): Promise<LevelContent> => {
    const content = held.level(level);
    await exchange.bring(sectionKeys(content));
    return content;
  };
  return {
    ...tasks,
    bake: async <B extends BakeKind>(
      { scene: { level, ...scene }, ref }: { readonly scene: HeldScene; readonly ref: BakeRef<B> },
      context: RunContext,
    ): Promise<BroughtBake<B>> => tasks.bake({ scene: { ...scene, content: await contentOf(level) }, ref }, context),
    'cut-level': async (
      { level, ...input }: Omit<CutInput, 'content'> & { readonly level: HeldLevel },
      context: RunContext,
    ): Promise<CutLevel> => tasks['cut-level']({ ...input, content: await contentOf(level) }, context),
  } as const;
}

/** Keys of the sections that stand in a level. */
function sectionKeys({ strata }: LevelContent): string[] {
  return strata.flatMap(({ content: { recipe: recipes, pin: pins } }) =>
    recipes.map((recipe) => bakeKey('section', recipeInputs(recipe, pins))),
  );
}

export type PageTasks = ReturnType<typeof createPageTasks>;
export type PageTaskName = keyof PageTasks;
export type PageTaskInput<N extends PageTaskName> = Parameters<PageTasks[N]>[0];
export type PageTaskResult<N extends PageTaskName> = Awaited<ReturnType<PageTasks[N]>>;
