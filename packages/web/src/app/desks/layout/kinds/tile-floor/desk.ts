import { inject } from '@angular/core';
import { LayoutDesk } from '../../editing/layout-desk';
import { StrokeGesture } from '../../plan/drags';
import type { Gesture } from '../../plan/gesture';
import { PlanSurface } from '../../plan/plan-surface';
import type { ItemDesk } from '../item-desk';
import { TileCard } from './tile-card';
import { TilesDesk } from './tiles-desk';

/** Paints the chosen floor; without one a drag spans a new one. */
function painting(): Gesture {
  const [desk, surface, tiles] = [inject(LayoutDesk), inject(PlanSurface), inject(TilesDesk)];
  return new StrokeGesture(
    () => 0,
    ({ points, from, to }) =>
      tiles.draw(tiles.selected() ? points : [from, to], surface.floor(), desk.state().snapMetres || 1),
  );
}

export const TILE_FLOOR_DESK: ItemDesk<'tileFloor'> = {
  card: TileCard,
  tools: { label: 'tiles', hint: 'drag: a new floor, or paint the selected one', tools: { tiles: painting } },
};
