import fc from 'fast-check';
import type { SightResult } from '../sight/sight-result';
import { countSeen, describePocket, pocketGroups, type Thing } from './pocket-figures';

const thing = (over: Partial<Thing> = {}): Thing => ({ what: 'piece', id: 'crate', name: 'crate', triangles: 10, materials: 1, stratum: 0, ...over });
const sightOf = (keys: readonly string[], visible: readonly (readonly number[])[]): SightResult =>
  ({ pockets: keys.map((key) => ({ key, bounds: { min: [0, 0, 0], max: [2, 2, 2] } })), visible }) as unknown as SightResult;

describe('a pocket’s figures', () => {
  it('count a thing in two pockets once, and one draw call a piece', () => {
    const things = [thing(), thing(), thing({ id: 'cart', materials: 2, triangles: 7 })];
    const inPocket = [[0, 1], [1, 2], [2]];
    const stamp = new Int32Array(3).fill(-1);
    expect(countSeen(0, [0, 1, 2], inPocket, [0, 0, 0], things, stamp)).toEqual({ things: 3, triangles: 27, drawCalls: 3 });
    expect(countSeen(2, [2], inPocket, [0, 0, 0], things, stamp)).toEqual({ things: 1, triangles: 7, drawCalls: 2 });
  });

  it('draw blocks of one material once for each group of pockets', () => {
    const blocks = [thing({ what: 'blocks', id: 'brick' }), thing({ what: 'blocks', id: 'brick' }), thing({ what: 'blocks', id: 'slate' })];
    const groups = pocketGroups(['0,0,0:0', '0,0,0:1', '1,0,0:0']);
    expect(groups).toEqual([0, 0, 1]);
    const stamp = new Int32Array(3).fill(-1);
    expect(countSeen(0, [0, 1, 2], [[0], [1], [2, 0]], groups, blocks, stamp).drawCalls).toBe(3);
  });

  it('add up: by stratum, by cause, and in all', () => {
    const seeds = fc.array(
      fc.record({
        what: fc.constantFrom('piece' as const, 'blocks' as const),
        id: fc.constantFrom('a', 'b', 'c'),
        triangles: fc.integer({ min: 0, max: 50 }),
        materials: fc.integer({ min: 1, max: 3 }),
        stratum: fc.integer({ min: 0, max: 2 }),
        pockets: fc.uniqueArray(fc.integer({ min: 0, max: 3 }), { minLength: 1 }),
      }),
      { minLength: 1, maxLength: 12 },
    );
    fc.assert(
      fc.property(seeds, fc.uniqueArray(fc.integer({ min: 0, max: 3 }), { minLength: 1 }), (list, seen) => {
        // All things of a piece have its materials and triangles.
        const things = list.map((one) => {
          const first = list.find(({ what, id }) => what === one.what && id === one.id) ?? one;
          return thing({ ...one, name: one.id, materials: one.what === 'blocks' ? 1 : first.materials, triangles: one.what === 'piece' ? first.triangles : one.triangles });
        });
        const inPocket = [0, 1, 2, 3].map((pocket) => list.flatMap(({ pockets }, i) => (pockets.includes(pocket) ? [i] : [])));
        const keys = ['0,0,0:0', '0,0,0:1', '1,0,0:0', '1,0,0:1'];
        const visible = [seen, [], [], []];
        const groups = pocketGroups(keys);
        const counted = countSeen(0, seen, inPocket, groups, things, new Int32Array(things.length).fill(-1));
        const plain = [...new Set(seen.flatMap((pocket) => inPocket[pocket]))];
        expect(counted.things).toBe(plain.length);
        expect(counted.triangles).toBe(plain.reduce((sum, i) => sum + things[i].triangles, 0));
        const opened = describePocket(0, sightOf(keys, visible), inPocket, groups, things, ['x', 'y', 'z'], counted.things, counted.triangles, counted.drawCalls);
        for (const measure of ['triangles', 'drawCalls'] as const) {
          expect(opened.strata.reduce((sum, one) => sum + one[measure], 0)).toBe(counted[measure]);
          expect(opened.causes.reduce((sum, one) => sum + one[measure], 0)).toBe(counted[measure]);
        }
        expect(opened.causes.reduce((sum, { count }) => sum + count, 0)).toBe(counted.things);
        expect(opened.causes.map(({ triangles }) => triangles)).toEqual([...opened.causes.map(({ triangles }) => triangles)].sort((a, b) => b - a));
        expect(opened.middle).toEqual([1, 1, 1]);
      }),
      { numRuns: 200 },
    );
  });
});
