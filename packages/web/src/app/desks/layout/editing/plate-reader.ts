import type { Box3, ItemKind, PlanPoint } from '@stravel/core';
import type { PickItem } from '../../../plate/pick-item';

/** What the desk asks of the plate: where things are. Metres. */
export interface PlateReader {
  item(stratum: string, kind: ItemKind, id: string): PickItem | undefined;
  facesOf(item: PickItem): readonly Float64Array[] | undefined;
  everything(): PickItem[];
  /** What the plan shows now. */
  planView(): { readonly middle: PlanPoint; readonly metresPerPixel: number };
  /** What lies wholly or partly within a rectangle of the plan. */
  itemsWithin(x0: number, z0: number, x1: number, z1: number): PickItem[];
  itemsNear(x: number, z: number, reach: number): PickItem[];
  /** Brings a box into view. */
  frame(box: Box3): void;
  surfaceBelow(point: readonly [number, number, number], skip: ReadonlySet<string>): number | undefined;
}
