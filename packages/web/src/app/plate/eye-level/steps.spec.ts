import fc from 'fast-check';
import { stepped, type Stand, type EyeMove } from './steps';

const AT: Stand = { x: 10, floor: 0, z: -4, yawDegrees: 0, pitchDegrees: 0 };
const held = (...moves: EyeMove[]): ReadonlySet<EyeMove> => new Set(moves);
const flat = (): number => 0;

describe('eyes', () => {
  it('goes where one looks, three metres a second', () => {
    expect(stepped(AT, held('ahead'), 1, flat)).toMatchObject({ x: 10, z: -7 });
    const east = stepped({ ...AT, yawDegrees: -90 }, held('ahead'), 0.5, flat);
    expect([east.x, east.z].map((n) => Number(n.toFixed(9)))).toEqual([11.5, -4]);
    expect(stepped(AT, held('right'), 1, flat)).toMatchObject({ x: 13, z: -4 });
    expect(stepped(AT, held('turn-left', 'turn-right', 'ahead', 'back'), 1, flat)).toEqual(AT);
  });

  it('goes no faster aslant, and looks up and down no further than it can', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -720, max: 720, noNaN: true }),
        fc.double({ min: 0, max: 2, noNaN: true }),
        (yawDegrees, seconds) => {
          const after = stepped({ ...AT, yawDegrees }, held('ahead', 'left', 'down'), seconds, flat);
          expect(Math.hypot(after.x - AT.x, after.z - AT.z)).toBeCloseTo(3 * seconds, 9);
          expect(Math.abs(after.pitchDegrees)).toBeLessThanOrEqual(80);
        },
      ),
    );
  });

  it('steps onto what is low, under what is high, down to what lies below, and stays where nothing is', () => {
    const tops = [0.5, 3, -4];
    const floorBelow = ([, y]: readonly number[]): number | undefined =>
      Math.max(...tops.filter((top) => top <= y)) as number;
    expect(stepped(AT, held('ahead'), 0.1, floorBelow).floor).toBe(0.5);
    expect(stepped({ ...AT, floor: -1 }, held('ahead'), 0.1, floorBelow).floor).toBe(-4);
    expect(stepped({ ...AT, floor: 7 }, held('ahead'), 0.1, () => undefined).floor).toBe(7);
  });
});
