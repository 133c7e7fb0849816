import fc from 'fast-check';
import { createRunContext } from '../context/run-context';
import { planStabbing, roomGrid } from '../testing';
import { bakeSight } from './bake-sight';
import { openingTable, waysOfPockets } from './opening-polygons';
import { RoughBounds } from './rough-bounds';
import type { SightResult } from './sight-result';

const bake = (columns: number, rows: number, seed: string, options = {}): SightResult =>
  bakeSight(roomGrid(columns, rows, seed), options, createRunContext());
const tableOf = (result: SightResult) =>
  openingTable(
    result.openings.map(({ pockets, plane, polygon }, i) => ({
      first: pockets[0],
      second: pockets[1],
      planeNumber: i,
      plane,
      corners: Float64Array.from(polygon),
    })),
  );

describe('visible sets of buildings drawn at random', () => {
  const building = fc.tuple(
    fc.integer({ min: 1, max: 4 }),
    fc.integer({ min: 1, max: 4 }),
    fc.string({ minLength: 1, maxLength: 6 }),
  );

  it('hold every pair that exact stabbing of the plan finds', () => {
    fc.assert(
      fc.property(building, ([columns, rows, seed]) => {
        const result = bake(columns, rows, seed);
        planStabbing(result).forEach((exact, a) => {
          const seen = new Set(result.visible[a]);
          expect([...exact].filter((b) => !seen.has(b))).toEqual([]);
        });
      }),
      { numRuns: 12 },
    );
  }, 60000);

  it('are mutual, hold the pocket itself and all its neighbours', () => {
    fc.assert(
      fc.property(building, ([columns, rows, seed]) => {
        const { visible, openings } = bake(columns, rows, seed);
        visible.forEach((list, a) => {
          expect(list).toContain(a);
          for (const b of list) expect(visible[b]).toContain(a);
        });
        for (const { pockets } of openings) expect(visible[pockets[0]]).toContain(pockets[1]);
      }),
      { numRuns: 12 },
    );
  }, 60000);

  it('only grow when steps run out, for one opening or for all', () => {
    fc.assert(
      fc.property(
        building,
        fc.integer({ min: 1, max: 60 }),
        fc.integer({ min: 1, max: 400 }),
        ([columns, rows, seed], stepLimit, totalStepLimit) => {
          const free = bake(columns, rows, seed);
          const limited = bake(columns, rows, seed, { stepLimit, totalStepLimit });
          free.visible.forEach((list, a) => expect(limited.visible[a]).toEqual(expect.arrayContaining([...list])));
        },
      ),
      { numRuns: 12 },
    );
  }, 60000);

  it('lie within the rough bounds of the ways that lead there', () => {
    const result = bake(4, 3, 'bounds');
    const table = tableOf(result);
    const ways = waysOfPockets(table, result.pockets.length);
    const rough = new RoughBounds(table, ways, result.pockets.length);
    result.visible.forEach((list, a) => {
      for (const b of list) {
        if (a === b) continue;
        expect(ways[a].some((way) => (rough.of(way)[b >> 5] & (1 << (b & 31))) !== 0)).toBe(true);
      }
    });
    // And a bound leaves out what lies wholly behind the way.
    const all = result.pockets.length;
    const sizes = ways
      .flat()
      .map((way) => rough.of(way).reduce((sum, word) => sum + word.toString(2).replace(/[^1]/g, '').length, 0));
    expect(Math.min(...sizes)).toBeLessThan(all);
  });

  it('refuse more pockets than are asked for, by number', () => {
    expect(() => bake(3, 3, 'many', { pocketLimit: 5 })).toThrow(/falls into \d+ pockets, at most 5 can be followed/);
  });
});
