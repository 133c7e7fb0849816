import { inject } from '@angular/core';
import { MARKER_KINDS, toMicro, yawOfDirection, type Marker, type PlanPoint } from '@stravel/core';
import { newId } from '../../../../edits/operations';
import { LayoutDesk } from '../../editing/layout-desk';
import { LinksDesk } from '../../links/links-desk';
import { MIN_METRES } from '../../plan/areas';
import { TwoPointGesture } from '../../plan/drags';
import type { Gesture } from '../../plan/gesture';
import { PlanSurface } from '../../plan/plan-surface';
import { allOf, command, type ItemDesk } from '../item-desk';
import { MarkerCard } from './marker-card';
import { MarkerOptions } from './marker-options';

/** A marker that looks where one drags to. */
function draggedMarker(kind: Marker['kind'], floor: number, [x, z]: PlanPoint, to: PlanPoint): Marker {
  const far = Math.hypot(to[0] - x, to[1] - z) > MIN_METRES;
  return {
    id: newId(),
    kind,
    position: [x, floor, z],
    turn: far ? toMicro(Math.round(yawOfDirection(to[0] - x, to[1] - z))) : 0,
  };
}

function setting(): Gesture {
  const [desk, surface] = [inject(LayoutDesk), inject(PlanSurface)];
  return new TwoPointGesture('line', (from, to) => {
    const { marker } = desk.state();
    void desk.add('marker', draggedMarker(marker, surface.floorAt(from), from, to), `set ${marker}`);
  });
}

export const MARKER_DESK: ItemDesk<'marker'> = {
  card: MarkerCard,
  shared: [{ field: 'kind', label: 'Kind', choices: MARKER_KINDS.map((kind) => ({ value: kind, text: kind })) }],
  commands: [command('Add link', allOf('marker', 1, 1), LinksDesk, (desk) => desk.add())],
  tools: { label: 'marker', options: MarkerOptions, tools: { marker: setting } },
};
