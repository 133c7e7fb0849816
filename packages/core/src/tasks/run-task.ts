import { figuresInput } from '../budget/figures-input';
import { countLevel, type LevelCount } from '../budget/count-level';
import { levelFigures, type BakedFigures } from '../budget/level-figures';
import type { FiguresInput } from '../budget/figures-scene';
import { cutLevel, type CutInput, type CutLevel } from '../cells/cut-level';
import { makeRehearsal, type RehearsalInput } from '../bakes/make-rehearsal';
import type { RehearsalResult } from '../cells/rehearsal-result';
import type { RunContext } from '../context/run-context';
import {
  addToKit,
  buildChains,
  type AddToKitInput,
  type BuildChainsInput,
  type BuiltChains,
} from '../detail/kit-steps';
import { readPieces, type ReadPieces, type ReadPiecesInput } from '../detail/read-pieces';
import type { Finding } from '../findings';
import { readCsv } from '../formats/csv/csv';
import type { LevelContent } from '../layout/level-content';
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
import type { Piece } from '../model/kit';
import type { ViewSettings } from '../model/view-settings';
import { checkPack, type CheckPackInput } from '../pack/check-pack';
import { inspectKit, type KitInspection } from '../pack/inspect-kit';
import type { PackFile } from '../pack/pack-kit';
import { levelLoad, type LevelLoadInput } from '../pack/level-load';
import { sightFile } from '../sight/sight-file';
import { packLevel, type PackLevelInput } from '../pack/pack-level';
import { makeSection, type Section, type SectionInput } from '../sections/make-section';
import { withSections } from '../sections/with-sections';
import { planImport, type ImportPlan, type ImportRowsInput, type ImportTables } from '../sets/import-rows';
import { layoutOrderGraph, type OrderGraph, type OrderGraphInput } from '../sets/order-graph';
import { bakeSight } from '../sight/bake-sight';
import { levelSightInput } from '../sight/level-sight-input';
import type { SightResult } from '../sight/sight-result';
import { figuresKey, rehearsalKey, sightKey } from '../bakes/bake-key';

/** What a level's bakes are made from. */
export interface LevelBakeInput {
  readonly content: LevelContent;
  readonly pieces: Readonly<Record<string, Piece>>;
  readonly view: ViewSettings;
  /** What the count needs beside; without it nothing is counted. */
  readonly load?: Pick<LevelLoadInput, 'kits' | 'kitLoads' | 'grid'>;
}

/** The keys that a level's bakes would have now, and what is counted without them. */
export interface LevelBakeKeys {
  readonly sight: string;
  readonly figures: string;
  /** Null where a placement's piece is missing, or it was not asked for. */
  readonly count: LevelCount | null;
}

/** The computations that run the same in a web worker, a server thread and the shell, by name. */
export const BAKE_TASKS = {
  'bake-keys': ({ content, pieces, view, load }: LevelBakeInput, context: RunContext): LevelBakeKeys => {
    const made = withSections(content, context);
    const sight = sightKey(levelSightInput(made.content));
    const input = figuresInput(made, pieces, view);
    return {
      sight,
      figures: figuresKey(input, sight),
      count:
        load && canBeCounted(input, load)
          ? { ...countLevel(input, context), load: levelLoad({ content: made.content, pieces, ...load }, context) }
          : null,
    };
  },
  'sight-key': (content: LevelContent, context: RunContext): string =>
    sightKey(levelSightInput(withSections(content, context).content)),
  'bake-sight': (content: LevelContent, context: RunContext): SightResult =>
    bakeSight(levelSightInput(withSections(content, context).content), {}, context),
  'bake-figures': (
    { content, pieces, view, sight }: LevelBakeInput & { readonly sight: SightResult },
    context: RunContext,
  ): BakedFigures => {
    const made = withSections(content, context);
    return {
      ...levelFigures({ ...figuresInput(made, pieces, view), sight }, context),
      sightFileBytes: sightFile(made.content, sight, pieces).length,
    };
  },
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
  'make-section': (input: SectionInput, context: RunContext): Section => makeSection(input, context),
  'cut-level': ({ content, ...rest }: CutInput, context: RunContext): CutLevel =>
    cutLevel({ ...rest, content: withSections(content, context).content }, context),
  'rehearsal-key': (input: RehearsalInput): string => rehearsalKey(input),
  'make-rehearsal': (input: RehearsalInput, context: RunContext): RehearsalResult => makeRehearsal(input, context),
  'read-pieces': (input: ReadPiecesInput, context: RunContext): Promise<ReadPieces> => readPieces(input, context),
  'add-to-kit': (input: AddToKitInput): Promise<Uint8Array> => addToKit(input),
  'build-chains': (input: BuildChainsInput, context: RunContext): Promise<BuiltChains> => buildChains(input, context),
  'read-csv': (bytes: Uint8Array): string[][] => readCsv(bytes),
  'plan-import': ({ tables, ...input }: ImportRowsInput & { readonly tables: ImportTables }): ImportPlan =>
    planImport(tables, input),
  'order-graph': (input: OrderGraphInput, context: RunContext): OrderGraph => layoutOrderGraph(input, context),
  'inspect-kit': (glb: Uint8Array): KitInspection => inspectKit(glb),
  'check-pack': (input: CheckPackInput, context: RunContext): Finding[] => checkPack(input, context),
  'pack-level': (input: PackLevelInput, context: RunContext): Promise<PackFile[]> => packLevel(input, context),
} as const;

/** Every placement's piece is there, and the files of its kit are known. */
function canBeCounted(
  { strata, pieces }: Omit<FiguresInput, 'sight'>,
  { kitLoads }: Pick<LevelLoadInput, 'kitLoads'>,
): boolean {
  const known = new Set(pieces.flatMap(({ id, kit }) => (Object.hasOwn(kitLoads, kit) ? [id] : [])));
  return strata.every(({ placements }) => placements.every(({ piece }) => known.has(piece)));
}

export type BakeTaskName = keyof typeof BAKE_TASKS;
export type BakeTaskInput<N extends BakeTaskName> = Parameters<(typeof BAKE_TASKS)[N]>[0];
export type BakeTaskResult<N extends BakeTaskName> = Awaited<ReturnType<(typeof BAKE_TASKS)[N]>>;
