import { inject } from '@angular/core';
import { withKnotIds, type Path, type PlanPoint } from '@stravel/core';
import { newId } from '../../../../edits/operations';
import { LayoutDesk } from '../../editing/layout-desk';
import type { Gesture } from '../../plan/gesture';
import { OutlineGesture } from '../../plan/outline-gesture';
import { PlanSurface } from '../../plan/plan-surface';
import { allOf, command, type ItemDesk } from '../item-desk';
import { KnotGrips } from './knot-grips';
import { PathCard } from './path-card';
import { PathOptions } from './path-options';
import { PathsDesk } from './paths-desk';

const ONE = allOf('path', 1, 1);

/** A path through points of the plan; undefined with fewer than two different ones. */
function drawnPath(form: Path['form'], floor: number, points: readonly PlanPoint[]): Path | undefined {
  const knots = points.filter((point, i) => i === 0 || point[0] !== points[i - 1][0] || point[1] !== points[i - 1][1]);
  if (knots.length < 2) return undefined;
  return {
    id: newId(),
    name: 'path',
    form,
    closed: false,
    knots: withKnotIds(knots.map(([x, z]) => ({ position: [x, floor, z], widthMetres: 2, tags: [], handle: null }))),
  };
}

function drawing(): Gesture {
  const [desk, surface] = [inject(LayoutDesk), inject(PlanSurface)];
  return new OutlineGesture({
    least: 2,
    take: (points) =>
      surface.make('path', 'add path', () => drawnPath(desk.state().pathForm, surface.floorAt(points[0]), points)),
  });
}

export const PATH_DESK: ItemDesk<'path'> = {
  card: PathCard,
  shared: [{ field: 'name', label: 'Name', mayBeEmpty: true }],
  grips: () => new KnotGrips(inject(LayoutDesk), inject(PathsDesk)),
  menu: {
    label: 'Path',
    commands: [
      command('Knots at equal spacing…', ONE, PathsDesk, (desk) => desk.resample()),
      command('Offset…', ONE, PathsDesk, (desk) => desk.offset()),
      command('Reverse', ONE, PathsDesk, (desk) => desk.reverse()),
      command('Join two into one', allOf('path', 2, 2), PathsDesk, (desk) => desk.join()),
      command('Close or open', ONE, PathsDesk, (desk) => desk.closeOrOpen()),
      command('Straight or smooth', ONE, PathsDesk, (desk) => desk.changeForm()),
      command('Distance of markers from it…', ONE, PathsDesk, (desk) => desk.openDistances()),
      command('Shade the plan by distance', ONE, PathsDesk, (desk) => desk.flipShade()),
    ],
  },
  tools: { label: 'path', options: PathOptions, hint: 'Enter finishes it', tools: { path: drawing } },
};
