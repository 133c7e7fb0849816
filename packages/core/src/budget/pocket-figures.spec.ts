import fc from 'fast-check';
import { countSeen, describePocket, pocketGroups, type SeenScene, type Thing } from './pocket-figures';

const thing = (over: Partial<Thing> = {}, triangles = 10, materials = 1): Thing => ({
  what: 'piece',
  id: 'crate',
  name: 'crate',
  steps: [{ triangles, materials }],
  distances: [0],
  stratum: 0,
  ...over,
});
/** Things of one metre at x, in pockets of two metres side by side. */
const sceneOf = (
  things: readonly Thing[],
  inPocket: readonly (readonly number[])[],
  keys: readonly string[] = inPocket.map((_list, i) => `0,0,0:${i}`),
  at: readonly number[] = [],
): SeenScene => ({
  things,
  bounds: new Float64Array(things.flatMap((_thing, i) => [at[i] ?? 0, 0, 0, (at[i] ?? 0) + 1, 1, 1])),
  inPocket,
  groups: pocketGroups(keys),
  pockets: keys.map((key, i) => ({ key, bounds: { min: [2 * i, 0, 0], max: [2 * i + 2, 2, 2] } })),
});
const stampFor = (things: readonly Thing[]): Int32Array => new Int32Array(things.length).fill(-1);

describe('a pocket’s figures', () => {
  it('count a thing in two pockets once, and one draw call a piece', () => {
    const things = [thing(), thing(), thing({ id: 'cart' }, 7, 2)];
    const scene = sceneOf(things, [[0, 1], [1, 2], [2]]);
    const stamp = stampFor(things);
    expect(countSeen(0, [0, 1, 2], scene, stamp)).toEqual({ things: 3, triangles: 27, drawCalls: 3 });
    expect(countSeen(2, [2], scene, stamp)).toEqual({ things: 1, triangles: 7, drawCalls: 2 });
  });

  it('draw blocks of one material once for each group of pockets', () => {
    const blocks = [
      thing({ what: 'blocks', id: 'brick' }),
      thing({ what: 'blocks', id: 'brick' }),
      thing({ what: 'blocks', id: 'slate' }),
    ];
    const keys = ['0,0,0:0', '0,0,0:1', '1,0,0:0'];
    expect(pocketGroups(keys)).toEqual([0, 0, 1]);
    expect(countSeen(0, [0, 1, 2], sceneOf(blocks, [[0], [1], [2, 0]], keys), stampFor(blocks)).drawCalls).toBe(3);
  });

  it('take the detail step of a thing’s distance from the pocket’s nearest point, and a draw call a step', () => {
    const steps = [
      { triangles: 100, materials: 2 },
      { triangles: 30, materials: 1 },
    ];
    const chained = (id: string): Thing => thing({ id, steps, distances: [0, 5] });
    // Pocket 0 ends at x = 2: things at 6.9 and 7 are 4.9 and 5 metres off.
    const things = [chained('crate'), chained('crate'), chained('crate')];
    const scene = sceneOf(things, [[0], [], [], [1, 2]], undefined, [0, 6.9, 7]);
    expect(countSeen(0, [0, 3], scene, stampFor(things))).toEqual({ things: 3, triangles: 230, drawCalls: 3 });
    expect(describePocket(0, [0, 3], scene, ['own'], { things: 3, triangles: 230, drawCalls: 3 }).causes).toMatchObject(
      [{ id: 'crate', count: 3, triangles: 230, drawCalls: 3 }],
    );
  });

  it('add up: by stratum, by cause, and in all', () => {
    const seeds = fc.array(
      fc.record({
        what: fc.constantFrom('piece' as const, 'blocks' as const),
        id: fc.constantFrom('a', 'b', 'c'),
        triangles: fc.integer({ min: 0, max: 50 }),
        materials: fc.integer({ min: 1, max: 3 }),
        stratum: fc.integer({ min: 0, max: 2 }),
        at: fc.integer({ min: 0, max: 12 }),
        pockets: fc.uniqueArray(fc.integer({ min: 0, max: 3 }), { minLength: 1 }),
      }),
      { minLength: 1, maxLength: 12 },
    );
    fc.assert(
      fc.property(seeds, fc.uniqueArray(fc.integer({ min: 0, max: 3 }), { minLength: 1 }), (list, seen) => {
        // All things of a piece have its materials and steps.
        const things = list.map((one): Thing => {
          const first = list.find(({ what, id }) => what === one.what && id === one.id) ?? one;
          const { what, id, stratum } = one;
          if (what === 'blocks') return thing({ what, id, stratum, name: id }, one.triangles);
          const full = { triangles: first.triangles, materials: first.materials };
          return thing({
            what,
            id,
            stratum,
            name: id,
            steps: [full, { triangles: first.triangles >> 1, materials: 1 }],
            distances: [0, 3],
          });
        });
        const inPocket = [0, 1, 2, 3].map((pocket) =>
          list.flatMap(({ pockets }, i) => (pockets.includes(pocket) ? [i] : [])),
        );
        const scene = sceneOf(
          things,
          inPocket,
          ['0,0,0:0', '0,0,0:1', '1,0,0:0', '1,0,0:1'],
          list.map(({ at }) => at),
        );
        const counted = countSeen(0, seen, scene, stampFor(things));
        const plain = [...new Set(seen.flatMap((pocket) => inPocket[pocket]))];
        expect(counted.things).toBe(plain.length);
        // The first pocket ends at x = 2.
        expect(counted.triangles).toBe(
          plain.reduce(
            (sum, i) =>
              sum + (things[i].steps.length > 1 && list[i].at >= 5 ? things[i].steps[1] : things[i].steps[0]).triangles,
            0,
          ),
        );
        const opened = describePocket(0, seen, scene, ['x', 'y', 'z'], counted);
        for (const measure of ['triangles', 'drawCalls'] as const) {
          expect(opened.strata.reduce((sum, one) => sum + one[measure], 0)).toBe(counted[measure]);
          expect(opened.causes.reduce((sum, one) => sum + one[measure], 0)).toBe(counted[measure]);
        }
        expect(opened.causes.reduce((sum, { count }) => sum + count, 0)).toBe(counted.things);
        expect(opened.causes.map(({ triangles }) => triangles)).toEqual(
          [...opened.causes.map(({ triangles }) => triangles)].sort((a, b) => b - a),
        );
        expect(opened.middle).toEqual([1, 1, 1]);
      }),
      { numRuns: 200 },
    );
  });
});
