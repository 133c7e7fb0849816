import type { Piece } from '@stravel/core';
import type { StratumDocument } from '../../../document/stratum-document';
import { facesOfItem } from '../../../plate/item-shapes';
import type { PlateDrawing } from '../../../plate/plate-drawing';

/** Most things of other levels whose outlines are drawn. */
const MAX_OUTLINES = 3000;
const FAINT = 0.35;

/** Outlines of other levels' blocks and pieces, faintly; on the plan only what lies flat. */
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
  const outline = (document: StratumDocument, kind: 'block' | 'placement', id: string): void => {
    if (left-- <= 0) return;
    for (const face of facesOfItem(document, kind, id, pieces) ?? []) {
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
  for (const document of strata) {
    for (const id of document.tables.block.keys()) outline(document, 'block', id);
    for (let slot = 0; slot < document.tables.placement.slotCount && left > 0; slot++) {
      const id = document.tables.placement.idAt(slot);
      if (id !== undefined) outline(document, 'placement', id);
    }
  }
  context.stroke();
  context.globalAlpha = 1;
}
