import type { Box3, ItemKind, ItemOfKind, Piece, SquareCode, Vector3 } from '@stravel/core';
import type { ItemTables } from '../../document/item-tables';
import type { PlateDrawing } from '../plate-drawing';
import type { LayerHost, PlateLayer } from '../plate-layer';

/** What the shape of a thing follows from beside the thing itself. */
export interface PlateEnv {
  readonly pieces: Readonly<Record<string, Piece>>;
  /** Bounds of what a use of an assembly brings. */
  laidBounds(use: string): readonly Box3[];
}

/** Takes the bounds of the things of one kind. */
export interface BoxSink {
  /** Whether what stands in a group, or in none, counts. */
  isSeen(group: string | null | undefined): boolean;
  /** Whether only those count whose shape is known already. */
  readonly onlyMade: boolean;
  add(id: string, bounds: Box3): void;
}

/** A point of the plan that is asked about, and how near counts, metres. */
export interface PlanSpot {
  readonly x: number;
  readonly z: number;
  readonly reach: number;
}

/** What a thing fills: its bounds, and its faces where it has any. */
export interface Filled {
  readonly bounds: Box3;
  readonly faces: readonly Float64Array[] | undefined;
}

/** What marks are drawn with beside the things that they show. */
export interface MarksEnv {
  isSeen(group: string | null | undefined): boolean;
  /** How strongly something between two heights is drawn: the heights shown leave a ghost of the rest. */
  alphaOf(low: number, high: number): number;
  /** What the codes of tile floors mean. */
  readonly legend: ReadonlyMap<string, SquareCode>;
  /** Where something that is seen stands, in whichever document. */
  anchorOf(id: string): Vector3 | undefined;
  isSelected(id: string): boolean;
  /** Writes a name once all marks are drawn, where it has room. @param at where it begins @param size square pixels that the thing takes up */
  label(of: {
    readonly id: string;
    readonly text: string;
    readonly at: readonly [number, number];
    readonly size: number;
    readonly colour: string;
  }): void;
}

/** How things of a kind are drawn and picked. One in each room; `PLATE_KINDS` lists them. */
export interface PlateKind<K extends ItemKind> {
  /** Of things under one point the one of the higher rank is wanted first: small ones before large ones. */
  readonly rank: number;
  /** Bounds of one thing; undefined when it fills nothing. */
  readonly bounds: (item: ItemOfKind[K], env: PlateEnv) => Box3 | undefined;
  /** Bounds of all. May pause at each step. */
  readonly boxes: (table: ItemTables[K], env: PlateEnv, into: BoxSink) => Generator<void>;
  /** Face loops of its convex body, counter-clockwise from outside; undefined when it has none. */
  readonly faces?: (item: ItemOfKind[K], env: PlateEnv) => readonly Float64Array[] | undefined;
  /** Face loops of each of its convex bodies, where it has several. */
  readonly bodies?: (item: ItemOfKind[K]) => readonly (readonly Float64Array[])[];
  /** Lines that show it when it is selected, where its faces do not. */
  readonly outline?: (item: ItemOfKind[K]) => readonly Float64Array[];
  /** Whether it is taken by a point of the plan; absent: by its faces, or its bounds where it has none. */
  readonly isOver?: (item: ItemOfKind[K], spot: PlanSpot, filled: Filled) => boolean;
  /** Things may be stood on it. */
  readonly carries?: true;
  /** Where its things stand, whatever their size: enough to frame very many. */
  readonly stands?: (table: ItemTables[K], into: (point: Vector3) => void) => void;
  /** A change of one may show or hide others. */
  readonly hides?: true;
  readonly layer?: (table: ItemTables[K], host: LayerHost) => PlateLayer;
  readonly marks?: (table: ItemTables[K], drawing: PlateDrawing, env: MarksEnv) => void;
}

/** What names on the plate are written in. */
export const LABEL_FONT = "11.5px 'Spline Sans', sans-serif";
/** How thick something flat counts for picking, metres. */
export const SHEET_METRES = 0.01;

/** Things after which looking through a table may pause. */
export const ITEMS_A_STEP = 1024;

/** The bounds of all things of a table that is kept as records. */
export function boxesOfRecords<T extends { readonly id: string; readonly group?: string | null }>(
  bounds: (item: T, env: PlateEnv) => Box3 | undefined,
  counts: (item: T) => boolean = () => true,
): (table: { values(): Iterable<T> }, env: PlateEnv, into: BoxSink) => Generator<void> {
  return function* (table, env, into) {
    let looked = 0;
    for (const item of table.values()) {
      if (++looked % ITEMS_A_STEP === 0) yield;
      if (!into.isSeen(item.group) || (into.onlyMade && !counts(item))) continue;
      const box = bounds(item, env);
      if (box) into.add(item.id, box);
    }
  };
}

/** What stands nowhere and is not drawn. */
export const UNDRAWN = {
  rank: 0,
  bounds: (): undefined => undefined,
  *boxes(): Generator<void> {
    // It fills nothing.
  },
};
