import type { PlanPoint } from './vector';

/** An upright rectangle that makes pockets split where the designer wants it, and is never drawn. Metres. */
export interface Divider {
  readonly id: string;
  readonly from: PlanPoint;
  readonly to: PlanPoint;
  readonly bottom: number;
  readonly top: number;
  /** Group of its stratum; absent at the top. */
  readonly group?: string | null;
}
