import type { Box3, ItemKind } from '@stravel/core';

/** Something that can be picked. */
export interface PickItem {
  readonly stratum: string;
  readonly kind: ItemKind;
  readonly id: string;
  readonly bounds: Box3;
}
