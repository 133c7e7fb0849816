import { columnsOf, joinedColumns } from '../items/placement/columns';
import type { StratumContent } from '../model/items';
import type { PlacementColumns } from '../model/placement';

/** The columns of contents that were asked for; content is never changed in place. */
const COLUMNS = new WeakMap<StratumContent['placement'], PlacementColumns>();

/** The placements of a stratum of a level in columns: its own, then those that its sections made. */
export function placementsOf({
  content: { placement },
  made,
}: {
  readonly content: Pick<StratumContent, 'placement'>;
  readonly made?: PlacementColumns;
}): PlacementColumns {
  let own = COLUMNS.get(placement);
  if (!own) COLUMNS.set(placement, (own = columnsOf(placement)));
  return made ? joinedColumns([own, made]) : own;
}

/** Ids of the pieces that some strata place. */
export function placedPieces(strata: readonly Parameters<typeof placementsOf>[0][]): Set<string> {
  const used = new Set<string>();
  for (const one of strata) for (const piece of placementsOf(one).pieces) used.add(piece);
  return used;
}
