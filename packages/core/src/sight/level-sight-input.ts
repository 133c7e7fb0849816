import { contentExtent } from '../layout/content-extent';
import type { LevelContent } from '../layout/level-content';
import type { SightInput } from './sight-input';

/**
 * What the sight of a level depends on, in order of id. Strata that are switched off are counted, as they are still in the
 * level; decor blocks and placements are not.
 */
export function levelSightInput({ level, strata }: LevelContent): SightInput {
  const byId = <T extends { readonly id: string }>(items: T[]): T[] =>
    items.sort((a, b) => (a.id < b.id ? -1 : a.id > b.id ? 1 : 0));
  const blocks = byId(
    strata.flatMap(({ content }) =>
      content.block
        .filter((block) => block.sight === 'hides')
        .map(({ id, position, turn, planes }) => ({ id, position, turn, planes })),
    ),
  );
  const extent = blocks.length === 0 && level.bounds === null ? contentExtent(strata) : null;
  return {
    blocks,
    dividers: byId(
      strata.flatMap(({ content }) =>
        content.divider.map(({ id, from, to, bottom, top }) => ({ id, from, to, bottom, top })),
      ),
    ),
    spawns: byId(
      strata.flatMap(({ content }) =>
        content.marker.filter(({ kind }) => kind === 'spawn').map(({ id, position }) => ({ id, position })),
      ),
    ),
    bounds: level.bounds,
    openSky: level.openSky,
    ...(extent ? { extent } : {}),
  };
}
