import fc from 'fast-check';
import { smallCollection } from '../testing';
import { compareOrdered, levelsInOrder, ordersBetween, playNumbers, setTree } from './order';
import { freeCode, setFindings } from './set-findings';

describe('order', () => {
  it('gives keys between any neighbours, again and again', () => {
    fc.assert(
      fc.property(fc.array(fc.nat(), { minLength: 1, maxLength: 60 }), (picks) => {
        const keys = ordersBetween(null, null, 2);
        for (const pick of picks) {
          const at = pick % (keys.length + 1);
          keys.splice(at, 0, ...ordersBetween(keys[at - 1] ?? null, keys[at] ?? null));
        }
        expect([...keys].sort()).toEqual(keys);
        expect(new Set(keys).size).toBe(keys.length);
      }),
    );
  });

  it('numbers play levels from 1 down the tree and leaves binned ones out', async () => {
    const { records } = await smallCollection();
    const level = records.level['one'];
    const tables = {
      set: {
        ...records.set,
        inner: { id: 'inner', name: 'Inner', parent: 'works', order: 'a0', binned: null },
        lost: { id: 'lost', name: 'Lost', parent: null, order: 'a5', binned: '2026-01-01T00:00:00Z' },
      },
      level: {
        ...records.level,
        deep: { ...level, id: 'deep', set: 'inner' },
        tool: { ...level, id: 'tool', order: 'a9', purpose: 'tool' as const },
        gone: { ...level, id: 'gone', binned: '2026-01-01T00:00:00Z' },
        under: { ...level, id: 'under', set: 'lost' },
      },
    };
    const levels = levelsInOrder(tables);
    expect(levels.map(({ id }) => id)).toEqual(['one', 'two', 'tool', 'deep']);
    expect([...playNumbers(levels)]).toEqual([
      ['one', 1],
      ['two', 2],
      ['deep', 3],
    ]);
    expect(setTree(tables)[0].sets[0].depth).toBe(1);
    expect(
      [
        { id: 'b', order: 'a' },
        { id: 'a', order: 'a' },
      ].sort(compareOrdered)[0].id,
    ).toBe('a');
  });
});

describe('findings of sets', () => {
  it('find a code used twice without regard to case, and a stratum that is gone', async () => {
    const { records } = await smallCollection();
    expect(setFindings(records)).toEqual([]);
    const faulty = { ...records, level: { ...records.level, two: { ...records.level['two'], code: 'one', strata: [{ stratum: 'nowhere', switchedOff: false }] } } };
    const findings = setFindings(faulty);
    expect(findings.map(({ id, severity }) => [id, severity])).toEqual([
      ['CODE_USED_TWICE:two', 'error'],
      ['STRATUM_MISSING:two.nowhere', 'error'],
    ]);
    expect(findings[0].fixes).toHaveLength(1);
  });

  it('draw a code that nobody has', () => {
    const draws = [0, 0, 0, 0, 0, 1, 1, 1, 1, 1];
    const level = { code: 'aaaaa' };
    expect(freeCode({ level: { x: level as never } }, () => draws.shift() as number)).toBe('BBBBB');
  });
});
