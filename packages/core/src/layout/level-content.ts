import type { Level } from '../model/level';
import type { Stratum, StratumContent } from '../model/stratum';

/** A level with the content of every stratum in its stack; bottom first. */
export interface LevelContent {
  readonly level: Level;
  readonly strata: readonly { readonly stratum: Stratum; readonly content: StratumContent }[];
}
