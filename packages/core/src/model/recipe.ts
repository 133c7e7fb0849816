import type { Vector3 } from './vector';

export const RECIPE_KINDS = ['burrow'] as const;
export type RecipeKind = (typeof RECIPE_KINDS)[number];

/** A generator, its parameters and its seed; it makes a section. So far the burrow alone, which walks at random and carves caves. */
export interface Recipe {
  readonly id: string;
  readonly name: string;
  readonly kind: RecipeKind;
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
  /** A number or a word. */
  readonly seed: string;
  readonly material: string;
  /** Whether it makes a spawn where the walk starts and an exit on the floor farthest from it. */
  readonly hasMarkers: boolean;
}
