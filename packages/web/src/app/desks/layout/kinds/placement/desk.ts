import { inject } from '@angular/core';
import { heldAt, type PlanPoint, type Placement, type Vector3 } from '@stravel/core';
import { newId } from '../../../../edits/operations';
import { LayoutDesk } from '../../editing/layout-desk';
import { UNTURNED } from '../../plan/areas';
import { PointGesture } from '../../plan/drags';
import { uprightFrame } from '../../plan/frame';
import { FrameGrips } from '../../plan/frame-grips';
import type { Gesture } from '../../plan/gesture';
import { PlanSurface } from '../../plan/plan-surface';
import { placedAssembly } from '../assembly/assembly-edits';
import type { ItemDesk } from '../item-desk';
import { PlacementCard } from './placement-card';
import { ownBox, scaleForSize, sizeOfPlacement } from './placement-size';

function placedPiece(piece: string, position: Vector3): Placement {
  return { id: newId(), piece, position, turn: UNTURNED, scale: [1, 1, 1] };
}

/** Stands the chosen thing of the kits where one clicks: a piece or an assembly. */
function placing(): Gesture {
  const [desk, surface] = [inject(LayoutDesk), inject(PlanSurface)];
  return new PointGesture((at: PlanPoint) => {
    const { piece } = desk.state();
    const position: Vector3 = [at[0], surface.floorAt(at), at[1]];
    if (piece === '') desk.notify('Choose a piece of the kit first.');
    else if (Object.hasOwn(desk.tables().stratum, piece))
      void desk.add('assembly', placedAssembly(piece, position), 'place an assembly');
    else void desk.add('placement', placedPiece(piece, position), 'place a piece');
  });
}

function grips(): FrameGrips {
  const desk = inject(LayoutDesk);
  return new FrameGrips(() => {
    const one = desk.oneOf('placement');
    const piece = one && heldAt(desk.tables().piece, one.item.piece);
    if (!one || !piece) return undefined;
    const frame = uprightFrame(one.item, ownBox(one.item, piece));
    return (
      frame && {
        frame,
        size: sizeOfPlacement(one.item, piece),
        stretch: (size, position) => desk.resize(one, { scale: scaleForSize(size, piece, one.item), position }),
        turnTo: (yaw) => desk.setNumber(one, 'turn', 0, yaw),
      }
    );
  });
}

export const PLACEMENT_DESK: ItemDesk<'placement'> = {
  card: PlacementCard,
  grips,
  tools: {
    label: 'piece',
    hint: 'choose a piece below, then click where to place it',
    tools: { piece: placing },
  },
};
