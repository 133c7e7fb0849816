import type { CoreError } from '../errors';
import type { Floors } from '../detail/collision/kit-floors';
import type { RunContext } from '../context/run-context';
import type { KitLoads } from '../budget/mesh-files';
import type { PlacedFiles } from '../layout/placed-columns/placed-files';
import type { BakedFigures } from '../budget/level-figures';
import type { FiguresInput } from '../budget/figures-scene';
import type { RehearsalResult } from '../cells/rehearsal-result';
import type { LevelContent } from '../layout/level-content';
import type { CellGrid } from '../model/cell-grid';
import type { Device } from '../model/device';
import type { Json } from '../model/json';
import type { Kit, Piece } from '../model/kit';
import type { RecordKind } from '../model/records';
import type { Rehearsal } from '../model/rehearsal';
import type { ViewSettings } from '../model/view-settings';
import type { RecipeInputs, Section } from '../recipes/recipe-spec';
import type { SightInput } from '../sight/sight-input';
import type { SightResult } from '../sight/sight-result';
import type { RehearsalReads } from './rehearsal/make-rehearsal';

/** Every kind of bake: what it reads beside the bakes that it needs, and what it gives. */
export interface BakeOfKind {
  readonly section: { readonly reads: RecipeInputs; readonly result: Section };
  readonly sight: { readonly reads: SightInput; readonly result: SightResult };
  readonly figures: { readonly reads: Omit<FiguresInput, 'sight'>; readonly result: BakedFigures };
  readonly rehearsal: { readonly reads: RehearsalReads; readonly result: RehearsalResult };
}
export type BakeKind = keyof BakeOfKind;
export type BakeReads<B extends BakeKind> = BakeOfKind[B]['reads'];
export type BakeResult<B extends BakeKind> = BakeOfKind[B]['result'];

/** One bake of a level: the kind, and what it is of. */
export interface BakeRef<B extends BakeKind = BakeKind> {
  readonly kind: B;
  /** Id of the level, of the rehearsal; of a section its stratum and recipe. */
  readonly subject: string;
}

/** A bake with the key that it has. */
export type KeyedRef = BakeRef & { readonly key: string };

/** A bake that another reads. */
export interface BakeNeed {
  readonly ref: BakeRef;
  /** The part that is read; null stands for all of it. */
  readonly part: string | null;
}

/** A bake that another reads, made. */
export type NeededBake<B extends BakeKind = BakeKind> = {
  readonly [P in B]: { readonly kind: P; readonly subject: string; readonly result: BakeResult<P> };
}[B];

/** A level with everything that its bakes are made from. */
export interface LevelScene {
  readonly content: LevelContent;
  readonly pieces: Readonly<Record<string, Piece>>;
  readonly view: ViewSettings;
  readonly kits: Readonly<Record<string, Kit>>;
  readonly kitLoads: KitLoads;
  /** How the first target has placements; absent: JSON in the level's own file. */
  readonly placed?: PlacedFiles;
  /** How the level is cut, null when it is not. */
  readonly grid: CellGrid | null;
  /** Its own. */
  readonly rehearsals: readonly Rehearsal[];
  readonly devices: Readonly<Record<string, Device>>;
  /** What carries in the place of pieces; absent where no bake is made that reads it. */
  readonly floors?: Floors;
}

/** All that is known of a kind of bake. One in each room; `BAKES` lists them. */
export interface BakeSpec<B extends BakeKind> {
  readonly words: { readonly one: string; readonly many: string };
  /** Raised whenever the same input would give another result. */
  readonly version: number;
  /** Kinds of record that it reads, beside levels and strata. */
  readonly records: readonly RecordKind[];
  /** Made by itself as soon as it is lacking; all others when somebody asks. */
  readonly isMadeAtOnce?: true;
  /** Whether it is made with the collisions of pieces at hand. */
  readonly readsFloors?: true;
  /** What a level has bakes of. */
  readonly subjects: (scene: LevelScene) => readonly string[];
  /** What a subject lacks that a level could have a bake of; undefined where it is none of this level's. */
  readonly fault?: (scene: LevelScene, subject: string) => CoreError | undefined;
  readonly needs: (scene: LevelScene, subject: string) => readonly BakeNeed[];
  /** Exactly what is hashed, in the form that `hashed` gives it. */
  readonly reads: (scene: LevelScene, subject: string) => BakeReads<B>;
  /** The same as plain data. */
  readonly hashed: (reads: BakeReads<B>) => Json;
  /** @param needed in the order of `needs` @throws CoreError as its algorithm does, 'CANCELLED' */
  readonly make: (reads: BakeReads<B>, needed: readonly NeededBake[], context: RunContext) => BakeResult<B>;
  /** Milliseconds that it takes, about; absent where nobody knows. */
  readonly costMs?: (reads: BakeReads<B>) => number;
  /** The parts that others read by themselves, each hashed apart. */
  readonly parts: (result: BakeResult<B>) => Readonly<Record<string, Json>>;
  /** What is told of it without opening it. */
  readonly summary: (result: BakeResult<B>) => object;
  /** A result as JSON can hold it, and back; absent where it is plain data. */
  readonly codec?: {
    readonly encode: (result: BakeResult<B>) => object;
    readonly decode: (plain: unknown) => unknown;
  };
  /** Whether what was read back is a result of this version. */
  readonly check: (value: unknown) => value is BakeResult<B>;
}

export type BakeSpecs = { readonly [B in BakeKind]: BakeSpec<B> };

/** The needed bakes of a kind, in order. */
export function neededOf<B extends BakeKind>(needed: readonly NeededBake[], kind: B): readonly NeededBake<B>[] {
  // What is of the kind has the result of the kind.
  return needed.filter((one) => one.kind === kind) as unknown as readonly NeededBake<B>[];
}
