import { canonicalJson } from '../formats/canonical-json';
import { sha256Hex } from '../formats/sha256';
import type { Json } from '../model/json';
import { SIGHT_VERSION, type SightInput } from '../sight/sight-input';
import { FIGURES_VERSION, type FiguresInput } from '../budget/level-figures';

/** The kinds of bake that are kept. */
export type BakeKind = 'sight' | 'figures';

/** The key of a sight bake: a hash of exactly what it reads, and of its algorithm's version. */
export function sightKey(input: SightInput): string {
  return sha256Hex(canonicalJson({ kind: 'sight', version: SIGHT_VERSION, input: input as unknown as Json }));
}

/** The key of a figures bake. The sight it rests on enters by its own key. */
export function figuresKey(input: Omit<FiguresInput, 'sight'>, sight: string): string {
  return sha256Hex(canonicalJson({ kind: 'figures', version: FIGURES_VERSION, sight, input: input as unknown as Json }));
}
