import { figuresInput } from '../budget/figures-input';
import { levelFigures, type FiguresInput, type LevelFigures } from '../budget/level-figures';
import type { RunContext } from '../context/run-context';
import type { LevelContent } from '../layout/level-content';
import type { Piece } from '../model/kit';
import { bakeSight } from '../sight/bake-sight';
import { levelSightInput } from '../sight/level-sight-input';
import type { SightInput } from '../sight/sight-input';
import type { SightResult } from '../sight/sight-result';
import { figuresKey, sightKey } from './bake-key';

/** What a level's bakes are made from. */
export interface LevelBakeInput {
  readonly content: LevelContent;
  readonly pieces: Readonly<Record<string, Piece>>;
}

/** The keys that a level's bakes would have now. */
export interface LevelBakeKeys {
  readonly sight: string;
  readonly figures: string;
}

/** The computations that run the same in a web worker, a server thread and the shell, by name. */
export const BAKE_TASKS = {
  'bake-keys': ({ content, pieces }: LevelBakeInput): LevelBakeKeys => {
    const sight = sightKey(levelSightInput(content));
    return { sight, figures: figuresKey(figuresInput(content, pieces), sight) };
  },
  'bake-sight': (input: SightInput, context: RunContext): SightResult => bakeSight(input, {}, context),
  'bake-figures': (input: FiguresInput, context: RunContext): LevelFigures => levelFigures(input, context),
} as const;

export type BakeTaskName = keyof typeof BAKE_TASKS;
export type BakeTaskInput<N extends BakeTaskName> = Parameters<(typeof BAKE_TASKS)[N]>[0];
export type BakeTaskResult<N extends BakeTaskName> = ReturnType<(typeof BAKE_TASKS)[N]>;
