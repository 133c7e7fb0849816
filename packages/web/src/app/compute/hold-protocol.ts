import type { ItemKind, ShownRecord } from '@stravel/core';
import type { WholeTables } from '../document/item-tables';

/** A document as a worker holds it. `load` tells it from others of the same name, `version` grows with each change. */
export interface HeldVersion {
  readonly document: string;
  readonly load: number;
  readonly version: number;
}

/** What a worker is told before it is asked. Messages are taken in order. */
export type HoldMessage =
  | ({ readonly type: 'hold'; readonly whole: WholeTables } & HeldVersion)
  /** What changed since another version. */
  | ({ readonly type: 'change'; readonly from: number; readonly changes: readonly ItemChange[] } & HeldVersion)
  | { readonly type: 'release'; readonly document: string };

/** An item as it is now; undefined where it is gone. */
export type ItemChange = Pick<ShownRecord, 'id' | 'record'> & { readonly kind: ItemKind };
