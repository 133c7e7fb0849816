import { ITEM_KINDS, type Box3, type ItemKind, type Vector3 } from '@stravel/core';
import type { StratumDocument } from '../document/stratum-document';
import { boxAround } from './box-around';
import { plateKind } from './kinds';

/** The box around where things stand, whatever their size; undefined when nothing stands anywhere. */
export function roughBounds(strata: readonly StratumDocument[]): Box3 | undefined {
  const points: Vector3[] = [];
  const stands = <K extends ItemKind>(document: StratumDocument, kind: K): void =>
    plateKind(kind).stands?.(document.tables[kind], (point) => points.push(point));
  for (const document of strata) for (const kind of ITEM_KINDS) stands(document, kind);
  return boxAround(points.map((point) => ({ min: point, max: point })));
}
