import fc from 'fast-check';
import { canonicalJson } from '../json/canonical-json';
import { turnMatrix, turnVector, yawOfDirection } from '../geometry/turn';
import { randomStream } from '../random/random-stream';
import { createRunContext } from '../context/run-context';
import { columnUnit, textInUnit } from './amount-text';
import { atan2Degrees, cosDegrees, sinDegrees } from './trigonometry';

describe('trigonometry', () => {
  it('agrees with the engine and is exact at right angles', () => {
    fc.assert(
      fc.property(fc.double({ min: -1000, max: 1000, noNaN: true }), (degrees) => {
        expect(sinDegrees(degrees)).toBeCloseTo(Math.sin((degrees * Math.PI) / 180), 12);
        expect(cosDegrees(degrees)).toBeCloseTo(Math.cos((degrees * Math.PI) / 180), 12);
      }),
    );
    expect([0, 90, 180, 270, 360, -90].map((degrees) => [sinDegrees(degrees), cosDegrees(degrees)])).toEqual([
      [0, 1],
      [1, 0],
      [0, -1],
      [-1, 0],
      [0, 1],
      [-1, 0],
    ]);
  });

  it('finds angles in all quadrants', () => {
    const number = fc.double({ min: -100, max: 100, noNaN: true });
    fc.assert(
      fc.property(number, number, (y, x) => {
        fc.pre(Math.abs(x) + Math.abs(y) > 1e-6);
        // −0 counts as 0: half a turn is 180, never −180.
        expect(atan2Degrees(y, x)).toBeCloseTo((Math.atan2(y + 0, x) * 180) / Math.PI, 9);
      }),
    );
    expect(atan2Degrees(0, 0)).toBe(0);
  });

  it('turns about the axes as documented: yaw 90 looks along −X', () => {
    const turned = turnVector(turnMatrix([90, 0, 0]), 0, 0, -1);
    expect(turned.map((v) => v + 0)).toEqual([-1, 0, 0]);
    expect(yawOfDirection(-1, 0)).toBeCloseTo(90);
    expect(yawOfDirection(0, -1)).toBe(0);
  });
});

describe('random streams', () => {
  it('give the same numbers for the same seed, others for another name, and stay in range', () => {
    const draw = (seed: string) =>
      Array.from(
        { length: 1000 },
        (
          (stream) => () =>
            stream.next()
        )(randomStream(seed)),
      );
    expect(draw('a')).toEqual(draw('a'));
    expect(draw('a')).not.toEqual(draw('b'));
    expect(draw('c').every((v) => v >= 0 && v < 1)).toBe(true);
    const mean = draw('d').reduce((a, b) => a + b, 0) / 1000;
    expect(Math.abs(mean - 0.5)).toBeLessThan(0.05);
    const context = createRunContext({ seed: 's' });
    expect(context.random('one').next()).not.toBe(context.random('two').next());
  });
});

describe('canonical JSON', () => {
  it('sorts keys, keeps numbers exact and vectors on one line', () => {
    expect(canonicalJson({ b: [1, 0.1, -0], a: { d: null, c: 'x' }, e: [] })).toBe(
      '{\n  "a": {\n    "c": "x",\n    "d": null\n  },\n  "b": [1, 0.1, 0],\n  "e": []\n}\n',
    );
    fc.assert(
      fc.property(fc.double({ noNaN: true, noDefaultInfinity: true }), (value) =>
        expect(JSON.parse(canonicalJson([value]))).toEqual([value + 0]),
      ),
    );
    expect(() => canonicalJson({ a: [{ b: NaN }] })).toThrow('$.a[0].b must be finite, is NaN');
  });
});

describe('amounts in the unit of their column', () => {
  const read = (limit: number, values: readonly number[], base = ''): [string, string[]] => {
    const unit = columnUnit(limit, base);
    return [unit.name, values.map((value) => textInUnit(value, unit))];
  };

  it('share the unit in which the limit has two to four figures', () => {
    expect(read(380_000, [655_172, 57_200, 1090, 380_000, 0])).toEqual(['k', ['655', '57.2', '1.09', '380', '0']]);
    expect(read(96e6, [279_000, 61.4e6, 2.4e9], 'B')).toEqual(['MB', ['0.28', '61.4', '2400']]);
    expect(read(300, [18, 1187])).toEqual(['', ['18', '1187']]);
    expect(read(9999, [9999])).toEqual(['', ['9999']]);
    expect(read(10_000, [9999])).toEqual(['k', ['10.00']]);
  });

  it('never read as none what is there', () => {
    expect(read(380_000, [1, 4.9, 5])).toEqual(['k', ['< 0.01', '< 0.01', '0.01']]);
    expect(read(0, [0, 3])).toEqual(['', ['0', '3']]);
  });
});
