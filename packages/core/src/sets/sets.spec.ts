import fc from 'fast-check';
import { smallCollection } from '../testing';
import { compareOrdered } from '../model/ordered';
import { levelsInOrder, ordersBetween, playNumbers, setTree } from './order';
import { codePatternFault } from '../fields/code-pattern-fault';
import { freeCodes } from './codes';
import { setFindings } from './set-findings';

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
  it('find a code used twice without regard to case, and a stratum that was deleted', async () => {
    const { records } = await smallCollection();
    expect(setFindings(records)).toEqual([]);
    const faulty = {
      ...records,
      level: {
        ...records.level,
        two: { ...records.level['two'], code: 'one', strata: [{ stratum: 'nowhere', switchedOff: false }] },
      },
    };
    const findings = setFindings(faulty);
    expect(findings.map(({ id, severity }) => [id, severity])).toEqual([
      ['CODE_USED_TWICE:two', 'error'],
      ['STRATUM_MISSING:two.nowhere', 'error'],
    ]);
    expect(findings[0].fixes).toHaveLength(1);
  });

  it('draw codes that nobody has, without regard to case', () => {
    const draws = [0, 0, 1, 1, 1, 1, 0, 1];
    const level = { code: 'aa' };
    expect(
      freeCodes({ level: { x: level as never } }, { alphabet: 'AB', length: 2 }, 2, () => draws.shift() as number),
    ).toEqual(['BB', 'AB']);
  });

  it('find the last code that a pattern has, and no more than there are', () => {
    const level = Object.fromEntries(['aa', 'ab', 'BA'].map((code) => [code, { code } as never]));
    // Chance alone would never leave AA.
    expect(freeCodes({ level }, { alphabet: 'AB', length: 2 }, 5, () => 0)).toEqual(['BB']);
  });

  it('refuse patterns that would give the same code twice, or none', () => {
    expect(codePatternFault({ alphabet: 'AB', length: 1 })).toBeNull();
    for (const [alphabet, length, text] of [
      ['aA', 3, /A is in the characters twice/],
      ['A', 3, /two different/],
      ['A B', 3, /blanks/],
      ['AB', 0, /1 to 40/],
      ['AB', 1.5, /1 to 40/],
    ] as const)
      expect(codePatternFault({ alphabet, length })).toMatch(text);
  });
});
