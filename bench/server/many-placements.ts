import type { CollectionContent, Placement } from '@stravel/core';
import { smallCollection } from '@stravel/core/testing';

/** Stratum of the level 'one' in which they stand. */
export const STRATUM = 'own';

/** The small collection with so many placements in one stratum. */
export async function manyPlacements(count: number, placementAt: (i: number) => Placement): Promise<CollectionContent> {
  const content = await smallCollection();
  const own = content.strata.get(STRATUM);
  if (!own) throw new Error('the small collection has no stratum of its own');
  content.strata.set(STRATUM, { ...own, placement: Array.from({ length: count }, (_unused, i) => placementAt(i)) });
  return content;
}
