import type { RehearsalInput } from './make-rehearsal';
import { REHEARSAL_VERSION } from '../cells/rehearsal-result';
import { canonicalJson } from '../json/canonical-json';
import { sha256Hex } from '../json/sha256';
import type { Json } from '../model/json';
import { SIGHT_VERSION, type SightInput } from '../sight/sight-input';
import { FIGURES_VERSION } from '../budget/level-figures';
import type { FiguresInput } from '../budget/figures-scene';

/** The kinds of bake that are kept. */
export const BAKE_KINDS = ['sight', 'figures', 'rehearsal'] as const;
export type BakeKind = (typeof BAKE_KINDS)[number];

/** The key of a sight bake: a hash of exactly what it reads, and of its algorithm's version. */
export function sightKey(input: SightInput): string {
  return sha256Hex(canonicalJson({ kind: 'sight', version: SIGHT_VERSION, input: input as unknown as Json }));
}

/** The key of a figures bake. The sight it rests on enters by its own key. */
export function figuresKey(input: Omit<FiguresInput, 'sight'>, sight: string): string {
  return sha256Hex(
    canonicalJson({ kind: 'figures', version: FIGURES_VERSION, sight, input: input as unknown as Json }),
  );
}

/** The key of a rehearsal: content, pieces in use, their kits' names and files, grid, walk and device; nothing else of the level. */
export function rehearsalKey({
  content: { level, strata },
  pieces,
  kits,
  kitLoads,
  grid,
  rehearsal,
  device,
}: RehearsalInput): string {
  const used = [...new Set(strata.flatMap(({ content }) => content.placement.map(({ piece }) => piece)))]
    .sort()
    .flatMap((id) => (pieces[id] ? [pieces[id]] : []));
  const input = {
    strata: strata.map(({ stratum, content: { block, placement, recipe, pin, volume, link, marker, group } }) => ({
      id: stratum.id,
      isOff: level.strata.some((entry) => entry.stratum === stratum.id && entry.switchedOff),
      ...{ block, placement, recipe, pin },
      // Links know what they lead to by its name and by whether it is switched off.
      ...(link.length > 0 ? { volume, link, marker, group } : {}),
    })),
    pieces: used,
    kits: [...new Set(used.map(({ kit }) => kit))]
      .sort()
      .map((kit) => ({ kit, name: kits[kit]?.name ?? kit, load: kitLoads[kit] ?? null })),
    grid,
    rehearsal,
    device,
  };
  return sha256Hex(canonicalJson({ kind: 'rehearsal', version: REHEARSAL_VERSION, input: input as unknown as Json }));
}
