import type { StratumContent } from '../model/items';
import type { PlacementColumns } from '../model/placement';
import type { Level } from '../model/level';
import type { Stratum } from '../model/stratum';

/** As much of a level as what stands in it needs; a `LevelContent` is one. */
export interface StandingLevel {
  readonly level: Pick<Level, 'id' | 'strata'>;
  readonly strata: readonly {
    readonly stratum: Pick<Stratum, 'id'>;
    readonly content: StratumContent;
    readonly made?: PlacementColumns;
  }[];
}
