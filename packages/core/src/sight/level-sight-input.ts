import { contentExtent } from '../layout/content-extent';
import type { LevelContent } from '../layout/level-content';
import type { Block } from '../model/block';
import type { Marker } from '../model/marker';
import { recipeSpec } from '../recipes';
import type { HidingBlock, SightInput, SightSpawn } from './sight-input';

/**
 * What the sight of a level depends on, in order of id, its sections left out. Strata that are switched off are counted, as
 * they are still in the level; decor blocks and placements are not.
 */
export function levelSightInput({ level, strata }: LevelContent): SightInput {
  const blocks = hidingBlocks(strata.flatMap(({ content }) => content.block));
  const hides = ({ content }: LevelContent['strata'][number]): boolean =>
    content.recipe.some((recipe) => recipeSpec(recipe).makes.includes('block'));
  const extent = blocks.length === 0 && level.bounds === null && !strata.some(hides) ? contentExtent(strata) : null;
  return {
    blocks,
    dividers: byId(
      strata.flatMap(({ content }) =>
        content.divider.map(({ id, from, to, bottom, top }) => ({ id, from, to, bottom, top })),
      ),
    ),
    spawns: spawnsAmong(strata.flatMap(({ content }) => content.marker)),
    bounds: level.bounds,
    openSky: level.openSky,
    ...(extent ? { extent } : {}),
  };
}

/** A level's sight with that of its sections. */
export function joinedSight(input: SightInput, sections: readonly Pick<SightInput, 'blocks' | 'spawns'>[]): SightInput {
  if (sections.length === 0) return input;
  return {
    ...input,
    blocks: byId([...input.blocks, ...sections.flatMap(({ blocks }) => blocks)]),
    spawns: byId([...input.spawns, ...sections.flatMap(({ spawns }) => spawns)]),
  };
}

/** The blocks that hide, in order of id. */
export function hidingBlocks(blocks: readonly Block[]): HidingBlock[] {
  return byId(
    blocks
      .filter((block) => block.sight === 'hides')
      .map(({ id, position, turn, planes }) => ({ id, position, turn, planes })),
  );
}

/** The places from which play starts, in order of id. */
export function spawnsAmong(markers: readonly Marker[]): SightSpawn[] {
  return byId(markers.filter(({ kind }) => kind === 'spawn').map(({ id, position }) => ({ id, position })));
}

function byId<T extends { readonly id: string }>(items: T[]): T[] {
  return items.sort((a, b) => (a.id < b.id ? -1 : a.id > b.id ? 1 : 0));
}
