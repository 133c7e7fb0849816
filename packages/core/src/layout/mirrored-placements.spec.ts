import fc from 'fast-check';
import { placePoint, turnMatrix } from '../geometry/turn';
import type { Placement } from '../model/placement';
import type { Vector3 } from '../model/vector';
import { placementBounds } from './placement-bounds';
import { mirroredFields } from './place-items';

const number = (low: number, high: number): fc.Arbitrary<number> => fc.double({ min: low, max: high, noNaN: true });
const point: fc.Arbitrary<Vector3> = fc.tuple(number(-5, 5), number(-5, 5), number(-5, 5));
const along = fc.oneof(number(0.1, 4), number(-4, -0.1));
const placement: fc.Arbitrary<Placement> = fc.record({
  id: fc.constant('p'),
  piece: fc.constant('stack'),
  position: fc.tuple(number(-100, 100), number(-5, 5), number(-100, 100)),
  turn: fc.tuple(number(-720, 720), number(-90, 90), number(-180, 180)),
  scale: fc.tuple(along, along, along),
});
const placed = ({ position, turn, scale }: Placement, local: Vector3): Vector3 =>
  placePoint(position, turnMatrix(turn), scale, local);

describe('a placement that is mirrored', () => {
  it('shows each point of its piece where the mirror shows it, within the millionths of its numbers', () => {
    fc.assert(
      fc.property(placement, fc.constantFrom('x' as const, 'z' as const), point, (one, axis, local) => {
        const image = { ...one, ...mirroredFields({ kind: 'placement', item: one }, axis, 3) } as Placement;
        const [before, after] = [placed(one, local), placed(image, local)];
        const k = axis === 'x' ? 0 : 2;
        before.forEach((value, i) => expect(after[i]).toBeCloseTo(i === k ? 6 - value : value, 4));
        expect(image.scale).toEqual([-one.scale[0], one.scale[1], one.scale[2]]);
      }),
    );
  });

  it('keeps its scale where only its position and direction are mirrored', () => {
    const one: Placement = { id: 'p', piece: 's', position: [1, 0, 2], turn: [30, 0, 0], scale: [1, 2, 3] };
    expect(mirroredFields({ kind: 'placement', item: one }, 'x', 0, false)).toEqual({
      position: [-1, 0, 2],
      turn: [-30, 0, 0],
    });
  });

  it('has the bounds of its corners, however it is mirrored', () => {
    const box = { min: [-1, 0, -2], max: [3, 4, -0.5] } as const;
    fc.assert(
      fc.property(placement, (one) => {
        const corners = Array.from({ length: 8 }, (_unused, i) =>
          placed(one, [(i & 1 ? box.max : box.min)[0], (i & 2 ? box.max : box.min)[1], (i & 4 ? box.max : box.min)[2]]),
        );
        const bounds = placementBounds(one, box);
        for (const k of [0, 1, 2] as const) {
          expect(bounds.min[k]).toBeCloseTo(Math.min(...corners.map((corner) => corner[k])), 6);
          expect(bounds.max[k]).toBeCloseTo(Math.max(...corners.map((corner) => corner[k])), 6);
        }
      }),
    );
  });
});
