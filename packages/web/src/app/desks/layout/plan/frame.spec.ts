import fc from 'fast-check';
import { localBounds, turnMatrix, turnVector, type Block } from '@stravel/core';
import { resizedPlanes, sizeOfPlanes } from '../kinds/block/block-size';
import { ownBox, scaleForSize, sizeOfPlacement } from '../kinds/placement/placement-size';
import { BLOCK, CRATE, PLACEMENT } from '../testing/placed';
import {
  draggedExtent,
  handlesOf,
  stretchedTo,
  uprightFrame,
  yawTowards,
  type HandleFrame,
  type PlanExtent,
} from './frame';

const block: Block = { ...BLOCK, position: [0, 0, 0], turn: [0, 0, 0] };

describe('grips', () => {
  const number = fc.double({ min: -40, max: 40, noNaN: true });
  const frameOf = (one: Block): HandleFrame => {
    const frame = uprightFrame(one, localBounds(one.planes));
    if (!frame) throw new Error('an upright block has grips');
    return frame;
  };
  const stretched = (one: Block, to: PlanExtent): Block => {
    const { size, position } = stretchedTo(frameOf(one), sizeOfPlanes(one.planes), to);
    return { ...one, planes: resizedPlanes(one.planes, size), position };
  };

  it('stretch a block of any yaw to where they are dragged, and leave the other side where it was', () => {
    fc.assert(
      fc.property(
        number,
        number,
        fc.integer({ min: -180, max: 180 }),
        fc.constantFrom(-1, 0, 1),
        fc.constantFrom(-1, 1),
        number,
        number,
        (x, z, yaw, sideX, sideZ, toX, toZ) => {
          const turned: Block = { ...block, position: [x, 0, z], turn: [yaw, 0, 0] };
          const frame = frameOf(turned);
          const wanted = draggedExtent(frame, { kind: 'size', x: sideX as -1 | 0 | 1, z: sideZ as -1 | 1 }, [toX, toZ]);
          const result = stretched(turned, wanted);
          const { min, max } = localBounds(result.planes);
          const m = turnMatrix(turned.turn);
          const corner = (of: Block, lx: number, lz: number) => {
            const [dx, , dz] = turnVector(m, lx, 0, lz);
            return [of.position[0] + dx, of.position[2] + dz];
          };
          // The corner that is opposite to the grip stands where it stood.
          const still = [sideX < 0 ? 1 : 0, sideZ < 0 ? 1 : 0];
          const before = corner(turned, [-1, 1][still[0]], [-2, 2][still[1]]);
          const after = corner(result, [min[0], max[0]][still[0]], [min[2], max[2]][still[1]]);
          expect(Math.hypot(after[0] - before[0], after[1] - before[1])).toBeLessThan(1e-4);
          expect(max[2] - min[2]).toBeCloseTo(wanted.high[1] - wanted.low[1], 4);
          expect(max[1]).toBeCloseTo(3, 6);
        },
      ),
    );
  });

  it('stretch by hand, at a quarter turn', () => {
    const turned: Block = { ...block, turn: [90, 0, 0] };
    const made = stretched(turned, { low: [-1, -2], high: [1, 4] });
    // Local z from −2..2 to −2..4: the middle moves 1 m along local z, which looks along +x.
    expect([sizeOfPlanes(made.planes), made.position]).toEqual([
      [2, 3, 6],
      [1, 0, 0],
    ]);
    expect(uprightFrame({ ...block, turn: [0, 5, 0] }, localBounds(block.planes))).toBeUndefined();
  });

  it('give a placement of a piece its size by the scale', () => {
    const frame = uprightFrame(PLACEMENT, CRATE.bounds);
    if (!frame) throw new Error('a placement has grips');
    const { size, position } = stretchedTo(frame, sizeOfPlacement(PLACEMENT, CRATE), {
      low: [-0.5, -0.5],
      high: [1.5, 0.5],
    });
    expect([scaleForSize(size, CRATE, PLACEMENT), position]).toEqual([
      [2, 1, 1],
      [3.5, 0, 1],
    ]);
    expect(scaleForSize([2, 1, 1], CRATE, PLACEMENT)).toEqual([2, 0.5, 1]);
    // It stays mirrored, and lies as large on the other side of its origin.
    const mirrored = { ...PLACEMENT, scale: [-1, 2, 1] as const };
    expect([sizeOfPlacement(mirrored, CRATE), scaleForSize([2, 1, 1], CRATE, mirrored)]).toEqual([
      [1, 4, 1],
      [-2, 0.5, 1],
    ]);
    expect(ownBox(mirrored, { bounds: { min: [-1, 0, -1], max: [3, 2, 1] } })).toEqual({
      min: [-3, 0, -1],
      max: [1, 4, 1],
    });
    expect(sizeOfPlanes(resizedPlanes(block.planes, [4, 3, 1]))).toEqual([4, 3, 1]);
  });

  it('never turn a block inside out', () => {
    const { low, high } = draggedExtent(frameOf(block), { kind: 'size', x: 1, z: 0 }, [-50, 0]);
    expect(high[0] - low[0]).toBeCloseTo(0.05, 9);
  });

  it('leave room to drag what is small on the screen', () => {
    const kinds = (metresPerPixel: number) => handlesOf(frameOf(block), metresPerPixel).length;
    expect(kinds(0.01)).toBe(9);
    expect(kinds(0.1)).toBe(5);
    expect(kinds(1)).toBe(1);
  });

  it('turn the knob towards a point, in steps or freely', () => {
    const frame = frameOf(block);
    expect(yawTowards(frame, [0, -10], 15)).toBe(0);
    expect(yawTowards(frame, [-10, 0], 15)).toBe(90);
    expect(yawTowards(frame, [-10, -9], 15)).toBe(45);
    expect(yawTowards(frame, [-10, -9], 0)).toBeCloseTo(48.0128, 3);
  });
});
