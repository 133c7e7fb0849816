import type { RunContext } from '../context/run-context';
import type { Finding } from '../findings';
import type { Place } from '../items/place';
import type { Block } from '../model/block';
import type { ItemKind } from '../model/items';
import type { Marker } from '../model/marker';
import type { PinBase, PinOfKind } from '../model/pin';
import type { RecipeKind, RecipeOfKind } from '../model/recipe';
import type { PlacementColumns } from '../model/placement';
import type { Box3 } from '../model/vector';
import type { Parameters } from './parameters';

/** The pins that a kind of recipe takes; none where it has no sort of its own. */
export type PinOf<R extends RecipeKind> = R extends keyof PinOfKind ? PinOfKind[R] : never;

/** All that a recipe reads: exactly this is hashed. */
export interface RecipeInputs<R extends RecipeKind = RecipeKind> {
  /** Of the recipe's algorithm. */
  readonly version: number;
  readonly recipe: RecipeOfKind[R];
  /** Its own, in order of id. */
  readonly pins: readonly PinOf<R>[];
}

/** One thing that was counted while a section was made. */
export interface ToldFigure {
  readonly words: string;
  readonly count: number;
  /** What it is out of, and how that is called. */
  readonly of?: { readonly count: number; readonly words: string };
}

/** What a recipe makes. */
export interface Section {
  /** Of the recipe's algorithm. */
  readonly version: number;
  readonly recipe: string;
  /** In order of id, as all items. */
  readonly blocks: readonly Block[];
  readonly markers: readonly Marker[];
  /** Absent where it places nothing. */
  readonly placements?: PlacementColumns;
  /** What it comes to, in one line. */
  readonly line: string;
  /** What is shown beside it, most telling first. */
  readonly told: readonly ToldFigure[];
  /** What is wrong with it; the place names the recipe alone, as a section may stand in several levels. */
  readonly findings: readonly Finding[];
}

/** What a recipe may cost before it is made. */
export interface RecipeCost {
  /** Blocks and placements, at most about so many. */
  readonly things: number;
  readonly ms: number;
}

/** All that is known of a kind of recipe. One in each room; `RECIPES` lists them. */
export interface RecipeSpec<R extends RecipeKind> {
  readonly words: { readonly one: string; readonly many: string };
  /** What it does, for one who has none yet. */
  readonly means: string;
  /** Raised whenever the same inputs would make another section. */
  readonly version: number;
  /** Kinds of item that a section has. Where blocks are among them some block the view, whatever the parameters. */
  readonly makes: readonly ItemKind[];
  readonly parameters: Parameters<RecipeOfKind[R]>;
  readonly place: Place<RecipeOfKind[R]>;
  /** All that it may fill, whatever its seed; metres. */
  readonly bounds: (recipe: RecipeOfKind[R]) => Box3;
  readonly cost: (inputs: RecipeInputs<R>) => RecipeCost;
  /** @throws CoreError where nothing can be made of the parameters, 'CANCELLED' */
  readonly make: (inputs: RecipeInputs<R>, context: RunContext) => Section;
  /** What a pin keeps of one of its blocks, by the block's id; undefined where that cannot be pinned. */
  readonly pinned: (recipe: string, block: string) => Omit<PinOf<R>, keyof PinBase | 'hidden' | 'offset'> | undefined;
}

export type RecipeSpecs = { readonly [R in RecipeKind]: RecipeSpec<R> };
