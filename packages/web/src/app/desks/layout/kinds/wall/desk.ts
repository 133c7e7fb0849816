import { inject } from '@angular/core';
import type { PlanPoint, Wall } from '@stravel/core';
import { newId } from '../../../../edits/operations';
import { LayoutDesk } from '../../editing/layout-desk';
import type { Gesture } from '../../plan/gesture';
import { OutlineGesture } from '../../plan/outline-gesture';
import { PlanSurface } from '../../plan/plan-surface';
import type { LayoutState } from '../../store/layout-store';
import { SIGHT_CHOICES } from '../cards/solid-fields';
import { allOf, command, type ItemDesk } from '../item-desk';
import { OpeningGesture } from './opening-gesture';
import { WallCard } from './wall-card';
import { WallGrips } from './wall-grips';
import { WallOptions } from './wall-options';
import { WallsDesk } from './walls-desk';

/** A wall along a line of the plan; undefined with fewer than two different corners. */
export function drawnWall(
  { blockHeight, settings: { wall } }: Pick<LayoutState, 'blockHeight' | 'settings'>,
  floor: number,
  points: readonly PlanPoint[],
  isRing: boolean,
): Wall | undefined {
  const corners = points.filter(
    (point, i) => i === 0 || point[0] !== points[i - 1][0] || point[1] !== points[i - 1][1],
  );
  if (corners.length < 2) return undefined;
  const slab = isRing ? wall.slab : 0;
  return {
    id: newId(),
    name: isRing ? 'room' : 'wall',
    corners: corners.map((position) => ({ id: newId(), position })),
    closed: isRing,
    baseMetres: floor,
    heightMetres: blockHeight,
    thicknessMetres: wall.thickness,
    openings: [],
    floorMetres: slab,
    ceilingMetres: slab,
    sight: 'hides',
    material: 'brick',
  };
}

function drawing(): Gesture {
  const [desk, surface] = [inject(LayoutDesk), inject(PlanSurface)];
  return new OutlineGesture({
    closesFrom: 3,
    least: 2,
    take: (points, isRing) =>
      surface.make('wall', 'add wall', () => drawnWall(desk.state(), surface.floorAt(points[0]), points, isRing)),
  });
}

export const WALL_DESK: ItemDesk<'wall'> = {
  card: WallCard,
  shared: [
    { field: 'name', label: 'Name', mayBeEmpty: true },
    { field: 'sight', label: 'Blocks view', choices: SIGHT_CHOICES },
    { field: 'material', label: 'Material' },
  ],
  grips: () => new WallGrips(inject(LayoutDesk), inject(WallsDesk)),
  menu: {
    label: 'Wall',
    commands: [
      command('Close or open', allOf('wall', 1, 1), WallsDesk, (desk) => desk.closeOrOpen()),
      command('Turn into blocks', allOf('wall'), WallsDesk, (desk) => desk.detach()),
    ],
  },
  tools: {
    label: 'wall',
    options: WallOptions,
    hint: 'click corners; the first again closes a room, Enter ends an open wall',
    tools: {
      wall: drawing,
      door: () => new OpeningGesture(inject(WallsDesk), 'door'),
      window: () => new OpeningGesture(inject(WallsDesk), 'window'),
    },
  },
};
