import fc from 'fast-check';
import { arrowsAlong } from './way-out-drawing';

describe('the arrows of a way out', () => {
  it('stand evenly along it and point the way it goes, by hand', () => {
    const corner = arrowsAlong(
      [
        [0, 0],
        [40, 0],
        [40, 40],
      ],
      20,
    );
    expect(corner).toEqual([
      { at: [10, 0], angle: 0 },
      { at: [30, 0], angle: 0 },
      { at: [40, 10], angle: Math.PI / 2 },
      { at: [40, 30], angle: Math.PI / 2 },
    ]);
    expect(
      arrowsAlong(
        [
          [0, 0],
          [3, 0],
        ],
        20,
      ),
    ).toEqual([{ at: [1.5, 0], angle: 0 }]);
    expect(arrowsAlong([[5, 5]], 20)).toEqual([]);
    expect(
      arrowsAlong(
        [
          [5, 5],
          [5, 5],
        ],
        20,
      ),
    ).toEqual([]);
    expect(arrowsAlong([], 20)).toEqual([]);
  });

  it('lie on the line, at equal distances along it', () => {
    const spot = fc.tuple(fc.integer({ min: -300, max: 300 }), fc.integer({ min: -300, max: 300 }));
    fc.assert(
      fc.property(fc.array(spot, { minLength: 2, maxLength: 6 }), (line) => {
        const whole = line.slice(1).reduce((sum, [x, y], i) => sum + Math.hypot(x - line[i][0], y - line[i][1]), 0);
        const arrows = arrowsAlong(line, 22);
        expect(arrows).toHaveLength(whole === 0 ? 0 : Math.max(1, Math.floor(whole / 22)));
        for (const { at } of arrows) {
          const off = line.slice(1).map((to, i) => {
            const [dx, dy] = [to[0] - line[i][0], to[1] - line[i][1]];
            const square = dx * dx + dy * dy || 1;
            const share = Math.min(1, Math.max(0, ((at[0] - line[i][0]) * dx + (at[1] - line[i][1]) * dy) / square));
            return Math.hypot(at[0] - line[i][0] - dx * share, at[1] - line[i][1] - dy * share);
          });
          expect(Math.min(...off)).toBeLessThan(1e-6);
        }
      }),
    );
  });
});
