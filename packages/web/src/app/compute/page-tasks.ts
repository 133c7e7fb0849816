import {
  createTasks,
  readPieces,
  type BakeCache,
  type BakeKind,
  type BakeRef,
  type BroughtBake,
  type CutLevel,
  type LevelScene,
  type RunContext,
  type PlanPoint,
  type Tasks,
  bakeKey,
  recipeInputs,
  type LevelContent,
  type ReadPieces,
  type ReadPiecesInput,
  type RecipeInputs,
  type Section,
  CoreError,
  bakeOfPlain,
  parseJson,
} from '@stravel/core';
import type { LiveMoment } from '@stravel/walker';
import type { HeldDocuments, HeldLevel } from './held-documents';
import type { SectionExchange } from './section-exchange';
import { loadDraco } from './load-draco';
import { movedWith, sentSection, type SentSection } from './sent-section';
import {
  PackWalks,
  type PackAddress,
  type OpenedPack,
  type SteerTask,
  type WalkTask,
  type WalkedPack,
} from './pack-walks';

/** A level with all that its bakes are made from, but for what its strata hold. */
export type HeldScene = Omit<LevelScene, 'content'> & { readonly level: HeldLevel };

type CutInput = Parameters<Tasks['cut-level']>[0];

/** What the page's workers can do: what the core does, and the same for levels whose documents they hold. */
// eslint-disable-next-line @typescript-eslint/explicit-function-return-type -- the table says what each task takes and gives
export function createPageTasks(cache: BakeCache, held: HeldDocuments, exchange: SectionExchange) {
  const tasks = createTasks(cache);
  const packs = new PackWalks();
  const contentOf = async (level: HeldLevel): Promise<LevelContent> => {
    const content = held.level(level);
    await exchange.bring(sectionKeys(content));
    return content;
  };
  return {
    ...tasks,
    'read-pieces': (input: ReadPiecesInput, context: RunContext): Promise<ReadPieces> =>
      readPieces(input, context, { draco: loadDraco }),
    'make-section': (reads: RecipeInputs, context: RunContext): SentSection =>
      sentSection(tasks['make-section'](reads, context)),
    'section-key': (reads: RecipeInputs): string => bakeKey('section', reads),
    'open-section': ({ key, bytes }: { readonly key: string; readonly bytes: Uint8Array }): SentSection =>
      sentSection(cache.brought('section', key, () => sectionOf(bytes))),
    bake: async <B extends BakeKind>(
      { scene: { level, ...scene }, ref }: { readonly scene: HeldScene; readonly ref: BakeRef<B> },
      context: RunContext,
    ): Promise<BroughtBake<B>> => tasks.bake({ scene: { ...scene, content: await contentOf(level) }, ref }, context),
    'open-pack': (address: PackAddress, context: RunContext): Promise<OpenedPack> => packs.open(address, context),
    'walk-pack': (task: WalkTask, context: RunContext): Promise<WalkedPack> => packs.walk(task, context),
    'steer-pack': (task: SteerTask, context: RunContext): Promise<LiveMoment> => packs.steer(task, context),
    'step-pack': (step: Parameters<PackWalks['step']>[0]): LiveMoment => packs.step(step),
    'way-of-pack': (): readonly PlanPoint[] => packs.way(),
    'cut-level': async (
      { level, ...input }: Omit<CutInput, 'content'> & { readonly level: HeldLevel },
      context: RunContext,
    ): Promise<CutLevel> => tasks['cut-level']({ ...input, content: await contentOf(level) }, context),
  } as const;
}

/** @throws CoreError 'JSON_UNREADABLE' | 'BAKE_UNREADABLE' */
function sectionOf(bytes: Uint8Array): Section {
  const section = bakeOfPlain('section', parseJson(new TextDecoder().decode(bytes), 'section'));
  if (!section) throw new CoreError('BAKE_UNREADABLE', 'section: what the server keeps is none');
  return section;
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

/** What a result hands over to the page: buffers that nobody in the worker holds any more. */
export const MOVED: { readonly [N in PageTaskName]?: (result: PageTaskResult<N>) => Transferable[] } = {
  'make-section': movedWith,
  'open-section': movedWith,
  'plan-density': ({ cells }) => wholeBuffer(cells),
  'distance-shade': ({ metres }) => wholeBuffer(metres),
  'map-of-mask': wholeBuffer,
  'read-pieces': ({ glb }) => (glb ? wholeBuffer(glb) : []),
  'add-to-kit': ({ glb }) => wholeBuffer(glb),
  'set-collisions': ({ glb }) => wholeBuffer(glb),
  'kit-floors': (floors) =>
    Object.values(floors).flatMap(({ positions, indices, backs }) => [positions, indices, backs].flatMap(wholeBuffer)),
  'rename-pieces': wholeBuffer,
  'remove-piece': wholeBuffer,
  'build-chains': ({ glb }) => wholeBuffer(glb),
};

/** The buffer of what alone stands in it; a part of a larger one is copied. */
function wholeBuffer({ buffer, byteLength }: ArrayBufferView): Transferable[] {
  return buffer instanceof ArrayBuffer && buffer.byteLength === byteLength ? [buffer] : [];
}
