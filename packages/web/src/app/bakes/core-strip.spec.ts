import { coreStrip } from './core-strip';
import type { LevelCore } from './core-bands';

const core = (...values: number[]): LevelCore => {
  const sum = values.reduce((a, b) => a + b, 0);
  return {
    bands: values.map((value, i) => ({
      id: `b${i}`,
      name: `b${i}`,
      role: i === 0 ? 'base' : 'kit',
      value,
      text: `${value} t`,
    })),
    held: { state: 'known', value: sum, share: sum / 100 },
  };
};

describe('a core lying in a row', () => {
  it('has its bands from the left, on a scale that ends at one and a half times the limit', () => {
    expect(coreStrip(core(30, 45), 'triangles', 100)).toEqual({
      background: 'linear-gradient(90deg, var(--role-base) 0.00% 40.00%, var(--stone) 40.00% 100.00%)',
      widthPercent: 50,
      limitPercent: 100 / 1.5,
      state: 'known',
      isCut: false,
      text: 'triangles: 75\nb0 30 t\nb1 45 t',
    });
    const long = coreStrip(core(400), 'triangles', 100);
    expect([long.widthPercent, long.isCut]).toEqual([100, true]);
  });

  it('shows each band by a pixel at least, what costs nothing too', () => {
    // 96 pixels are 150: a band of one pixel each for 0 and 1, then 48 for 75.
    const { background, widthPercent } = coreStrip(core(0, 1, 75), 'triangles', 100);
    expect(widthPercent).toBeCloseTo((50 / 96) * 100, 9);
    expect(background).toBe(
      'linear-gradient(90deg, var(--role-base) 0.00% 2.00%, var(--stone) 2.00% 4.00%, var(--stone) 4.00% 100.00%)',
    );
    expect(coreStrip(core(0, 0), 'triangles', 0).widthPercent).toBeCloseTo((2 / 96) * 100, 9);
    // A hundred that cost nothing share a quarter of the room.
    expect(coreStrip(core(...Array<number>(100).fill(0)), 'triangles', 100).widthPercent).toBeCloseTo(25, 9);
  });

  it('is an outline up to the limit where nothing is known', () => {
    const unknown: LevelCore = { bands: [], held: { state: 'not known', value: undefined, share: undefined } };
    expect(coreStrip(unknown, 'memory', 100)).toMatchObject({
      background: 'none',
      widthPercent: 100 / 1.5,
      state: 'not known',
      text: 'memory: not known',
    });
    expect(coreStrip(core(5, 5), 'memory', 0)).toMatchObject({ widthPercent: 100, limitPercent: undefined });
  });
});
