import type { Vector3 } from './vector';

/** Every kind of recipe with its type. */
export interface RecipeOfKind {
  readonly burrow: BurrowRecipe;
}
export type RecipeKind = keyof RecipeOfKind;

/** A generator, its parameters and its seed; it makes a section. */
export type Recipe = RecipeOfKind[RecipeKind];

/** What every recipe has; its parameters stand beside it. */
export interface RecipeBase<K extends string> {
  readonly id: string;
  readonly name: string;
  readonly kind: K;
  /** A number or a word. */
  readonly seed: string;
}

/** Walks at random and carves a cave. */
export interface BurrowRecipe extends RecipeBase<'burrow'> {
  /** Corner of least x and z, on the floor; metres. */
  readonly position: Vector3;
  /** Size in squares, border included. */
  readonly columns: number;
  readonly rows: number;
  readonly squareMetres: number;
  readonly heightMetres: number;
  /** Share of the squares inside the border that shall be open floor, 0 to 1. */
  readonly openShare: number;
  /** Chance at each turn of a walker that it splits in two, 0 to 1. */
  readonly birthChance: number;
  readonly mostWalkers: number;
  /** Squares along every side that stay solid, at least 1. */
  readonly border: number;
  /** Steps of all walkers together after which it stops short. */
  readonly stepLimit: number;
  readonly material: string;
  /** Whether it makes a spawn where the walk starts and an exit on the floor farthest from it. */
  readonly hasMarkers: boolean;
}
