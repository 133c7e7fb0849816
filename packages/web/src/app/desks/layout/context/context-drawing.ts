import { ITEM_KINDS, type ItemKind, type Piece } from '@stravel/core';
import type { StratumDocument } from '../../../document/stratum-document';
import { plateEnv } from '../../../plate/item-shapes';
import { plateKind } from '../../../plate/kinds';
import type { PlateDrawing } from '../../../plate/plate-drawing';

/** Most things of other levels whose outlines are drawn. */
const MAX_OUTLINES = 3000;
const FAINT = 0.35;

/** Outlines of what carries in other levels, blocks and pieces, faintly; on the plan only what lies flat. */
export function drawContext(
  { context, colours, at, view }: PlateDrawing,
  strata: readonly StratumDocument[],
  pieces: Readonly<Record<string, Piece>>,
): void {
  let left = MAX_OUTLINES;
  context.globalAlpha = FAINT;
  context.strokeStyle = colours.softInk;
  context.lineWidth = 1;
  context.beginPath();
  const outline = <K extends ItemKind>(document: StratumDocument, kind: K): void => {
    const { carries, faces } = plateKind(kind);
    if (!carries || !faces) return;
    const env = plateEnv(document, pieces);
    for (const item of document.tableOf(kind).values()) {
      if (left-- <= 0) return;
      outlineFaces(faces(item, env) ?? []);
    }
  };
  const outlineFaces = (faces: readonly Float64Array[]): void => {
    for (const face of faces) {
      if (view === 'plan' && Math.abs(face[1] - face[4]) + Math.abs(face[4] - face[7]) > 1e-3) continue;
      for (let i = 0; i < face.length; i += 3) {
        const p = at(face[i], face[i + 1], face[i + 2]);
        if (!p) return;
        if (i === 0) context.moveTo(...p);
        else context.lineTo(...p);
      }
      context.closePath();
    }
  };
  for (const document of strata) for (const kind of ITEM_KINDS) outline(document, kind);
  context.stroke();
  context.globalAlpha = 1;
}
