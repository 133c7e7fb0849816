import { inject } from '@angular/core';
import { StrokeGesture } from '../../plan/drags';
import type { Gesture } from '../../plan/gesture';
import { PlanSurface } from '../../plan/plan-surface';
import type { ItemDesk } from '../item-desk';
import { MaskCard } from './mask-card';
import { MaskOptions } from './mask-options';
import { MasksDesk } from './masks-desk';

/** Paints the chosen mask; without one a drag spans a new one. */
function painting(): Gesture {
  const [surface, masks] = [inject(PlanSurface), inject(MasksDesk)];
  return new StrokeGesture(
    () => (masks.selected() ? masks.brushMetres() : 0),
    ({ points, from, to }) => masks.draw(points, from, to, surface.floor()),
  );
}

export const MASK_DESK: ItemDesk<'mask'> = {
  card: MaskCard,
  tools: { label: 'mask', options: MaskOptions, tools: { mask: painting } },
};
