import fc from 'fast-check';
import { sortedById } from './sorted-by-id';
import { Stretches } from './stretches';

describe('work in stretches', () => {
  it('lets others run in between, and passes over nothing', async () => {
    let turns = 0;
    let isDone = false;
    const turn = (): void => {
      turns++;
      if (!isDone) setImmediate(turn);
    };
    setImmediate(turn);
    const seen: number[] = [];
    await new Stretches().each(
      Array.from({ length: 640 }, (_unused, i) => i),
      (i) => {
        seen.push(i);
        const until = performance.now() + 0.5;
        while (performance.now() < until);
      },
    );
    isDone = true;
    expect(seen).toEqual(Array.from({ length: 640 }, (_unused, i) => i));
    expect(turns).toBeGreaterThan(3);
  });

  it('sorts as a plain sort does, over many runs', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.uniqueArray(fc.string({ maxLength: 4 }), { maxLength: 60 }),
        fc.integer({ min: 1, max: 9 }),
        async (ids, atOnce) => {
          const sorted = await sortedById(
            ids.map((id) => ({ id })),
            new Stretches(),
            atOnce,
          );
          expect(sorted.map(({ id }) => id)).toEqual([...ids].sort());
        },
      ),
    );
  });
});
