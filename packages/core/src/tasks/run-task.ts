import type { BakeCache } from '../bakes/bake-cache';
import type { BakeKind, BakeRef, LevelScene } from '../bakes/bake-spec';
import { bringBake, type BroughtBake } from '../bakes/bring-bake';
import { keptSection, sectionsOfLevel } from '../bakes/section/sections-of-level';
import type { RecipeInputs, Section } from '../recipes/recipe-spec';
import { cutLevel, type CutInput, type CutLevel } from '../cells/cut-level';
import type { RunContext } from '../context/run-context';
import { addToKit, removePieceFromKit, type AddToKitInput, type AddedToKit } from '../detail/add-to-kit';
import { kitFloors, type Floors, type KitFloorsInput } from '../detail/collision/kit-floors';
import { setCollisions, type SetCollisionsInput } from '../detail/collision/set-collisions';
import { buildChains, type BuildChainsInput, type BuiltChains } from '../detail/kit-steps';
import { renamePieces, type RenamePiecesInput } from '../detail/rename-pieces';
import { readPieces, type ReadPiecesInput } from '../detail/read-pieces';
import type { ReadPieces } from '../detail/sound-pieces';
import type { Finding } from '../findings';
import { readCsv } from '../formats/csv/csv';
import { findOverlaps, type Overlap, type OverlapsInput } from '../layout/checks/overlaps';
import { bitmapOfMask } from '../layout/masks/mask-bitmap';
import {
  mapOfMask,
  readMaskPicture,
  type ReadMaskPicture,
  type ReadMaskPictureInput,
} from '../layout/masks/mask-picture';
import { strokeTiles, type MaskStroke } from '../layout/masks/mask-stroke';
import { surveyMask, type MaskSurvey, type SurveyMaskInput } from '../layout/masks/survey-mask';
import { planDensity, type DensityInput, type PlanDensity } from '../layout/overview/plan-density';
import { distanceShade, type DistanceShade, type DistanceShadeInput } from '../layout/paths/distance-shade';
import { solvedTiles, type SolvedTiles, type SolveTilesInput } from '../layout/tiles/solved-tiles';
import type { Mask } from '../model/mask';
import { checkPack, type CheckPackInput } from '../pack/check-pack';
import { inspectKit, type KitInspection } from '../pack/inspect-kit';
import { withSections } from '../sections/with-sections';
import { planImport, type ImportPlan, type ImportRowsInput, type ImportTables } from '../sets/import-rows';
import { layoutOrderGraph, type OrderGraph, type OrderGraphInput } from '../sets/order-graph';

/**
 * The computations that run the same in a web worker, a server thread and the shell, by name.
 * @param cache of the bakes that were made; shared by all of them
 */
// eslint-disable-next-line @typescript-eslint/explicit-function-return-type -- the table says what each task takes and gives
export function createTasks(cache: BakeCache) {
  return {
    'make-section': (inputs: RecipeInputs, context: RunContext): Section => keptSection(inputs, cache, context),
    bake: <B extends BakeKind>(
      { scene, ref }: { readonly scene: LevelScene; readonly ref: BakeRef<B> },
      context: RunContext,
    ): BroughtBake<B> => bringBake(scene, ref, cache, context),
    'plan-density': (input: DensityInput, context: RunContext): PlanDensity => planDensity(input, context),
    'find-overlaps': (input: OverlapsInput, context: RunContext): Overlap[] => findOverlaps(input, context),
    'distance-shade': (input: DistanceShadeInput, context: RunContext): DistanceShade => distanceShade(input, context),
    'solve-tiles': ({ floors, legend, rules, stateLimit }: SolveTilesInput, context: RunContext): SolvedTiles =>
      solvedTiles(floors, legend, rules, stateLimit, context),
    'read-mask-picture': (input: ReadMaskPictureInput, context: RunContext): ReadMaskPicture =>
      readMaskPicture(input, context),
    'map-of-mask': ({ mask, mostSide }: { readonly mask: Mask; readonly mostSide: number }): Uint8Array =>
      mapOfMask(bitmapOfMask(mask), mostSide),
    'stroke-mask': ({ mask, stroke }: { readonly mask: Mask; readonly stroke: MaskStroke }): Record<string, string> =>
      strokeTiles(mask, stroke),
    'survey-mask': (input: SurveyMaskInput, context: RunContext): MaskSurvey => surveyMask(input, context),
    'cut-level': ({ content, ...rest }: CutInput, context: RunContext): CutLevel =>
      cutLevel({ ...rest, content: withSections(content, sectionsOfLevel(content, cache, context)) }, context),
    'read-pieces': (input: ReadPiecesInput, context: RunContext): Promise<ReadPieces> => readPieces(input, context),
    'add-to-kit': (input: AddToKitInput, context: RunContext): Promise<AddedToKit> => addToKit(input, context),
    'set-collisions': (input: SetCollisionsInput, context: RunContext): ReturnType<typeof setCollisions> =>
      setCollisions(input, context),
    'kit-floors': (input: KitFloorsInput, context: RunContext): Promise<Floors> => kitFloors(input, context),
    'remove-piece': (input: { readonly kit: Uint8Array; readonly name: string }): Promise<Uint8Array> =>
      removePieceFromKit(input),
    'rename-pieces': (input: RenamePiecesInput): Promise<Uint8Array> => renamePieces(input),
    'build-chains': (input: BuildChainsInput, context: RunContext): Promise<BuiltChains> => buildChains(input, context),
    'read-csv': (bytes: Uint8Array): string[][] => readCsv(bytes),
    'plan-import': ({ tables, ...input }: ImportRowsInput & { readonly tables: ImportTables }): ImportPlan =>
      planImport(tables, input),
    'order-graph': (input: OrderGraphInput, context: RunContext): OrderGraph => layoutOrderGraph(input, context),
    'inspect-kit': (glb: Uint8Array): KitInspection => inspectKit(glb),
    'check-pack': (input: CheckPackInput, context: RunContext): Finding[] => checkPack(input, context),
  } as const;
}

export type Tasks = ReturnType<typeof createTasks>;
export type TaskName = keyof Tasks;
export type TaskInput<N extends TaskName> = Parameters<Tasks[N]>[0];
export type TaskResult<N extends TaskName> = Awaited<ReturnType<Tasks[N]>>;
