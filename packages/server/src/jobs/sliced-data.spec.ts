import { inspect } from 'node:util';
import fc from 'fast-check';
import { SliceGathering, slicedData, slicesOf } from './sliced-data';

/** What the other side has after all slices went there. */
function sent(data: unknown, least: number, most: number): unknown {
  const { sliced, lists } = slicedData(data, least);
  const gathering = new SliceGathering();
  for (const slice of slicesOf(lists, most)) gathering.take(structuredClone(slice));
  return gathering.whole(structuredClone(sliced));
}

const { tree: plain } = fc.letrec((tie) => ({
  tree: fc.oneof(
    { maxDepth: 4 },
    fc.string(),
    fc.double(),
    fc.constant(null),
    fc.uint8Array({ maxLength: 4 }),
    fc.array(tie('tree'), { maxLength: 8 }),
    fc.dictionary(fc.oneof(fc.string(), fc.constantFrom('__proto__', 'constructor', '0', 'id')), tie('tree'), {
      maxKeys: 8,
      noNullPrototype: true,
    }),
    fc.array(fc.tuple(fc.string(), tie('tree')), { maxLength: 6 }).map((entries) => new Map(entries)),
  ),
}));

describe('data sent in slices', () => {
  it('is the same on the other side, whatever it is, and left as it was on this one', () => {
    fc.assert(
      fc.property(plain, fc.integer({ min: 1, max: 6 }), fc.integer({ min: 1, max: 4 }), (data, least, most) => {
        const before = inspect(data, { depth: 99 });
        expect(inspect(sent(data, least, most), { depth: 99 })).toBe(before);
        expect(inspect(data, { depth: 99 })).toBe(before);
      }),
    );
  });

  it('comes in slices of some thousand values, long lists within long lists too', () => {
    const stratum = (length: number) => ({
      placement: Array.from({ length }, (_unused, i) => ({ id: `p${i}`, position: [i, 0, 0] })),
    });
    const data = {
      records: { level: Object.fromEntries(Array.from({ length: 2000 }, (_unused, i) => [`l${i}`, { id: `l${i}` }])) },
      strata: new Map(Array.from({ length: 300 }, (_unused, i) => [`s${i}`, stratum(400)])),
      list: Array.from({ length: 300 }, () => ({ content: stratum(100) })),
    };
    const { sliced, lists } = slicedData(data);
    expect(JSON.stringify(sliced.rest).length).toBeLessThan(40000);
    const slices = [...slicesOf(lists)];
    const sizes = slices.map((slice) => slice.reduce((sum, { members }) => sum + members.length, 0));
    // An item and its place are six values.
    expect(Math.max(...sizes)).toBeLessThanOrEqual(2000);
    expect(sizes.reduce((sum, size) => sum + size, 0)).toBeGreaterThan(300);
    expect(slices.length).toBeGreaterThan((6 * 300 * 400) / 5000);
    expect(inspect(sent(data, 64, 5000), { depth: 99 })).toBe(inspect(data, { depth: 99 }));
  });
});
