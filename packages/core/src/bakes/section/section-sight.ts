import type { Section } from '../../recipes/recipe-spec';
import { hidingBlocks, spawnsAmong } from '../../sight/level-sight-input';
import type { SightInput } from '../../sight/sight-input';

/** The part of a section that sight reads. */
export function sectionSight({ blocks, markers }: Section): Pick<SightInput, 'blocks' | 'spawns'> {
  return { blocks: hidingBlocks(blocks), spawns: spawnsAmong(markers) };
}
