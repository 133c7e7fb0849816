import type { Level } from '../model/level';
import type { Stratum, StratumContent } from '../model/stratum';
import { withoutAside } from './groups';
import { patchedContent } from './patched-content';

/** A level with the content of every stratum in its stack; bottom first. */
export interface LevelContent {
  readonly level: Level;
  readonly strata: readonly { readonly stratum: Stratum; readonly content: StratumContent }[];
}

/** The content of a stratum that counts for a level: its patches laid over, and what is set aside left out. */
export function standingContent(content: StratumContent, level: string): StratumContent {
  return withoutAside(patchedContent(content, level));
}

/**
 * A level as everything that computes reads it.
 * @param contents the strata of its stack as they are stored, bottom first
 */
export function levelContent(level: Level, contents: LevelContent['strata']): LevelContent {
  return { level, strata: contents.map(({ stratum, content }) => ({ stratum, content: standingContent(content, level.id) })) };
}
