import type { Finding } from '../findings';
import type { Block } from '../model/block';
import type { LinkedLevel } from '../layout/links/link-findings';
import type { Piece } from '../model/kit';
import type { Marker } from '../model/marker';
import type { PlacementColumns } from '../model/placement';
import type { StratumRole } from '../model/stratum';
import type { ViewSettings } from '../model/view-settings';
import type { SightResult } from '../sight/sight-result';

/** What the figures of a level are made from; blocks and placements in order of id. */
export interface FiguresInput {
  readonly level: string;
  readonly strata: readonly {
    readonly id: string;
    readonly name: string;
    readonly role: StratumRole;
    readonly shared: boolean;
    readonly blocks: readonly Block[];
    readonly placements: PlacementColumns;
    readonly markers: readonly Pick<Marker, 'kind'>[];
  }[];
  readonly pieces: readonly Piece[];
  /** The picture for which detail steps are chosen. */
  readonly view: ViewSettings;
  /** Where a level has recipes, what its links are told by: they may lead to what sections made. */
  readonly linked: LinkedLevel | null;
  /** What was found in how the level is laid out, and in its sections where they are laid in. */
  readonly findings: readonly Finding[];
  readonly sight: SightResult;
}
