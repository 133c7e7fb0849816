import { ruleText } from '../plan/rule-gesture';
import { layoutBed, type LayoutBed } from '../testing/layout-bed';

const corners = ({ document }: LayoutBed): (readonly (readonly number[])[])[] =>
  [...document.itemsOf('wall')].map((wall) => wall.corners.map(({ position }) => position));
const type = ({ tools }: LayoutBed, text: string): boolean[] => [...text].map((key) => tools.type(key));

describe('the plan worked by keys', () => {
  it('draws a wall by steps, by lengths on the way, and by lengths along both axes', async () => {
    const bed = layoutBed({});
    bed.set({ tool: 'wall' });
    // Nothing is typed and nothing moves before Enter on the plan.
    expect([bed.tools.step(1, 0), ...type(bed, '5')]).toEqual([false, false]);
    bed.tools.finish(true);
    bed.tools.finish();
    bed.tools.step(2, 0);
    expect(type(bed, '7.51')).toEqual([true, true, true, true]);
    expect(bed.tools.type('Backspace')).toBe(true);
    bed.tools.finish();
    bed.tools.step(0, -1);
    type(bed, '0 4');
    bed.tools.finish();
    // Letters are no lengths.
    expect(bed.tools.type('q')).toBe(false);
    bed.tools.finish();
    await bed.settled();
    expect(corners(bed)).toEqual([
      [
        [0, 0],
        [7.5, 0],
        [7.5, -4],
      ],
    ]);
  });

  it('closes a room on its first corner and drags a box from one corner to the other', async () => {
    const bed = layoutBed({});
    bed.set({ tool: 'wall', snapMetres: 0.5 });
    bed.tools.finish(true);
    for (const [x, z] of [
      [0, 0],
      [6, 0],
      [0, 4],
      [-6, 0],
      [0, -4],
    ]) {
      bed.tools.step(x, z);
      bed.tools.finish();
    }
    await bed.settled();
    expect([...bed.document.itemsOf('wall')].map(({ closed, corners: { length } }) => [closed, length])).toEqual([
      [true, 4],
    ]);
    bed.set({ tool: 'box' });
    bed.tools.step(10, 0);
    bed.tools.finish();
    type(bed, '3x2');
    bed.tools.finish();
    await bed.settled();
    expect([...bed.document.itemsOf('block')].map(({ position }) => position)).toEqual([[11.5, expect.anything(), 1]]);
  });

  it('lets go first of what is half done, then of the cursor, and gives way to the pointer', () => {
    const bed = layoutBed({});
    bed.set({ tool: 'path' });
    bed.tools.finish(true);
    bed.tools.finish();
    expect([bed.tools.cancel(), bed.tools.hasCursor(), bed.tools.cancel(), bed.tools.hasCursor()]).toEqual([
      true,
      true,
      true,
      false,
    ]);
    expect(bed.tools.cancel()).toBe(false);
    bed.tools.finish(true);
    bed.pointer('down', 1, 1);
    expect(bed.tools.hasCursor()).toBe(false);
    // What the pointer began is ended by Enter as ever.
    bed.tools.finish(true);
    expect(bed.tools.hasCursor()).toBe(false);
    bed.set({ tool: 'select' });
    bed.tools.finish(true);
    expect(bed.tools.hasCursor()).toBe(false);
  });
});

describe('a rule', () => {
  it('tells the distance, its parts, and the height where it is known', () => {
    expect(ruleText([1, 2], [4, 6], undefined)).toBe('5.00 m   X 3.00 Z 4.00');
    expect(ruleText([0, 0], [2, -3], 6)).toBe('7.00 m   X 2.00 Y 6.00 Z -3.00');
  });
});
