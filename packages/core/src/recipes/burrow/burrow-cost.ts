import type { RecipeCost, RecipeInputs } from '../recipe-spec';

/** Of a thread of an ordinary desktop machine. */
const MS_A_STEP = 3e-6;
const MS_A_SQUARE = 2e-4;
/** Walls that cover the edge of the cave take up several squares each. */
const SQUARES_A_WALL = 6;

/** What a burrow costs at most: the walk may end long before its step limit. */
export function burrowCost({ recipe: { columns, rows, openShare, stepLimit } }: RecipeInputs<'burrow'>): RecipeCost {
  const squares = columns * rows;
  return {
    things: Math.ceil((squares * Math.min(1, 2 * openShare)) / SQUARES_A_WALL) + 2,
    ms: squares * MS_A_SQUARE + stepLimit * MS_A_STEP,
  };
}
