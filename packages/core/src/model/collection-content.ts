import type { RecordKind, RecordOfKind } from './records';
import type { StratumContent } from './items';

/** Everything of one collection. */
export interface CollectionContent {
  readonly records: { [K in RecordKind]: Record<string, RecordOfKind[K]> };
  /** Content by stratum id. */
  readonly strata: Map<string, StratumContent>;
  /** Bytes by SHA-256 in hexadecimal. */
  readonly assets: Map<string, Uint8Array>;
}
