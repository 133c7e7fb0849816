import type { PlacementColumns } from '../../model/placement';
import type { PlacementForm, Target } from '../../model/target';

/** How placements are written as columns. */
export type ColumnForm = Exclude<PlacementForm, 'json'>;

/** Placements that are written as columns, and whether as JSON too. */
export interface PlacedFiles {
  readonly form: ColumnForm;
  readonly withJson: boolean;
}

/** One placement: columns, and which of them. */
export interface PlacedAt {
  readonly of: PlacementColumns;
  readonly i: number;
}

/** How a target has placements; undefined where they are JSON alone. */
export function placedFilesOf({
  placements,
  withPlacementsJson,
}: Pick<Target, 'placements' | 'withPlacementsJson'>): PlacedFiles | undefined {
  if (!placements || placements === 'json') return undefined;
  return { form: placements, withJson: withPlacementsJson === true };
}

/** Whether placements stand in their level's own file. */
export function hasPlacedJson(placed: PlacedFiles | undefined): boolean {
  return placed === undefined || placed.withJson;
}
