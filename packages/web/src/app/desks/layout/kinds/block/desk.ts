import { inject } from '@angular/core';
import { localBounds, plainJson } from '@stravel/core';
import { LayoutDesk } from '../../editing/layout-desk';
import { TwoPointGesture } from '../../plan/drags';
import { uprightFrame } from '../../plan/frame';
import { FrameGrips } from '../../plan/frame-grips';
import type { Gesture } from '../../plan/gesture';
import { OutlineGesture } from '../../plan/outline-gesture';
import { PlanSurface } from '../../plan/plan-surface';
import { SIGHT_CHOICES } from '../cards/solid-fields';
import { allOf, command, type ItemDesk } from '../item-desk';
import { BlockCard } from './block-card';
import { draggedBlock, outlinedBlock, type DRAGGED_FORMS } from './block-makers';
import { BlockOptions } from './block-options';
import { resizedPlanes, sizeOfPlanes } from './block-size';
import { BlocksDesk } from './blocks-desk';

const dragged = (form: keyof typeof DRAGGED_FORMS) => (): Gesture => {
  const [desk, surface] = [inject(LayoutDesk), inject(PlanSurface)];
  return new TwoPointGesture('area', (from, to) =>
    surface.make('block', `add ${form}`, () => draggedBlock(form, desk.state(), surface.floorAt(from), from, to)),
  );
};

function outlined(): Gesture {
  const [desk, surface] = [inject(LayoutDesk), inject(PlanSurface)];
  return new OutlineGesture({
    closesFrom: 3,
    least: 3,
    take: (points) =>
      surface.make('block', 'add prism', () =>
        outlinedBlock(desk.state().blockHeight, surface.floorAt(points[0]), points),
      ),
  });
}

function grips(): FrameGrips {
  const desk = inject(LayoutDesk);
  return new FrameGrips(() => {
    const one = desk.oneOf('block');
    if (!one) return undefined;
    const { planes } = one.item;
    const frame = uprightFrame(one.item, localBounds(planes));
    return (
      frame && {
        frame,
        size: sizeOfPlanes(planes),
        stretch: (size, position) => desk.resize(one, { planes: plainJson(resizedPlanes(planes, size)), position }),
        turnTo: (yaw) => desk.setNumber(one, 'turn', 0, yaw),
      }
    );
  });
}

export const BLOCK_DESK: ItemDesk<'block'> = {
  card: BlockCard,
  shared: [
    { field: 'name', label: 'Name', mayBeEmpty: true },
    { field: 'sight', label: 'Blocks view', choices: SIGHT_CHOICES },
    { field: 'material', label: 'Material' },
  ],
  grips,
  menu: {
    label: 'Block',
    commands: [
      command('Cut by a plane…', allOf('block'), BlocksDesk, (desk) => desk.cut()),
      command('Join two into one', allOf('block', 2, 2), BlocksDesk, (desk) => desk.join()),
      command('Turn into walls…', allOf('block'), BlocksDesk, (desk) => desk.hollow()),
      command('Move a face…', allOf('block', 1, 1), BlocksDesk, (desk) => desk.moveFace()),
      command('Material per face…', allOf('block', 1, 1), BlocksDesk, (desk) => desk.surface()),
      command('Exact planes…', allOf('block', 1, 1), BlocksDesk, (desk) => desk.planes()),
    ],
  },
  tools: {
    label: 'block',
    options: BlockOptions,
    tools: { box: dragged('box'), wedge: dragged('wedge'), cylinder: dragged('cylinder'), prism: outlined },
  },
};
