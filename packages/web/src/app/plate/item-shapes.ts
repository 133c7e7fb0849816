import type { Box3, ItemKind, ItemOfKind } from '@stravel/core';
import type { StratumDocument } from '../document/stratum-document';
import { plateKind } from './kinds';
import type { PlateEnv, PlateKind } from './kinds/plate-kind';

type Pieces = PlateEnv['pieces'];

/** What the shapes of a document's things follow from beside the things. */
export function plateEnv(document: StratumDocument, pieces: Pieces): PlateEnv {
  return {
    pieces,
    laidBounds: (use) => {
      const { laid } = document;
      return (laid?.items.get(use) ?? []).flatMap(
        ({ kind, id }) => (laid && boundsOfItem(laid.document, kind, id, pieces)) ?? [],
      );
    },
  };
}

/** Bounds of an item, undefined when it has none (a block that encloses nothing, a piece that is gone). */
export function boundsOfItem(document: StratumDocument, kind: ItemKind, id: string, pieces: Pieces): Box3 | undefined {
  return ofItem(document, kind, id, (spec, item) => spec.bounds(item, plateEnv(document, pieces)));
}

/** Face loops of a convex body, or of the turned box of a placement's piece; undefined for things that have none. */
export function facesOfItem(
  document: StratumDocument,
  kind: ItemKind,
  id: string,
  pieces: Pieces,
): readonly Float64Array[] | undefined {
  return ofItem(document, kind, id, (spec, item) => spec.faces?.(item, plateEnv(document, pieces)));
}

/** What is asked of one item's kind; undefined when the item is gone. */
export function ofItem<K extends ItemKind, R>(
  document: StratumDocument,
  kind: K,
  id: string,
  ask: (spec: PlateKind<K>, item: ItemOfKind[K]) => R,
): R | undefined {
  const item = document.tableOf(kind).get(id);
  return item && ask(plateKind(kind), item);
}
