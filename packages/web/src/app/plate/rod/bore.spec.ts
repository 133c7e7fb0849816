import fc from 'fast-check';
import { boreOf } from './bore';

const thing = (stratum: string, low: number, high: number): Parameters<typeof boreOf>[0][number] => ({
  stratum,
  bounds: { min: [0, low, 0], max: [1, high, 1] },
});

describe('the bore through a level', () => {
  it('shows at each height what most of it is', () => {
    const things = [thing('ground', -1, 0), thing('walls', 0, 4), thing('lamps', 3, 4), thing('lamps', 3, 4)];
    expect(boreOf(things, 5)).toEqual({
      low: -1,
      high: 4,
      bands: [
        { stratum: 'ground', low: -1, high: 0 },
        { stratum: 'walls', low: 0, high: 3 },
        { stratum: 'lamps', low: 3, high: 4 },
      ],
    });
  });

  it('leaves gaps, and takes what is flat, equal or nothing', () => {
    expect(boreOf([])).toBeUndefined();
    expect(boreOf([thing('a', 0, 1), thing('a', 9, 10)], 10)?.bands).toEqual([
      { stratum: 'a', low: 0, high: 1 },
      { stratum: 'a', low: 9, high: 10 },
    ]);
    expect(boreOf([thing('flat', 2, 2)], 4)?.bands.map(({ stratum }) => stratum)).toEqual(['flat']);
  });

  it('has bands in order, within its ends, each of a stratum that stands there', () => {
    const one = fc.tuple(
      fc.constantFrom('a', 'b', 'c'),
      fc.double({ min: -50, max: 50, noNaN: true }),
      fc.double({ min: 0, max: 20, noNaN: true }),
    );
    fc.assert(
      fc.property(fc.array(one, { minLength: 1, maxLength: 20 }), (rows) => {
        const things = rows.map(([stratum, low, height]) => thing(stratum, low, low + height));
        const bore = boreOf(things, 16);
        if (!bore) throw new Error('something stands');
        const size = (bore.high - bore.low) / 16;
        let last = bore.low;
        for (const { stratum, low, high } of bore.bands) {
          expect(low).toBeGreaterThanOrEqual(last - 1e-9);
          expect(high).toBeGreaterThan(low);
          last = high;
          expect(
            things.some(
              ({ stratum: of, bounds }) =>
                of === stratum && bounds.min[1] <= high + 1e-9 && bounds.max[1] >= low - size - 1e-9,
            ),
          ).toBe(true);
        }
      }),
    );
  });
});
