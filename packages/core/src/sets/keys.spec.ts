import fc from 'fast-check';
import type { JsonRecord } from '../document/apply-operation';
import type { Operation } from '../document/operation';
import { smallCollection } from '../testing';
import { MAX_KEY_LETTERS, keyFault, keyFromName } from '../fields/key-text';
import { checkKeys, completeKeys, freeKey, newKey } from './keys';

const create = (id: string, name: string, key?: string): Operation => ({
  document: 'records',
  kind: 'level',
  id,
  field: null,
  before: null,
  after: { id, name, ...(key === undefined ? {} : { key }) },
});
const keysOf = (operations: readonly Operation[]): unknown[] =>
  operations.map(({ after }) => (after as JsonRecord)['key']);

describe('keys', () => {
  it.each([
    ["Gaffer's Stair — Öst", 'gaffers-stair-ost'],
    ['  12 ', '12'],
    ['硝子', ''],
    ['--', ''],
    ['x'.repeat(70), 'x'.repeat(60)],
    [`${'word '.repeat(12)}last-of-all`, 'word-word-word-word-word-word-word-word-word-word-word-word'],
  ])('are made of %s', (name, key) => {
    expect(keyFromName(name)).toBe(key);
  });

  it('count up from what is taken, and from the number where nothing of the name can stay', () => {
    expect(freeKey('Sump', 'level', 9, new Set())).toBe('sump');
    expect(freeKey('Sump', 'level', 9, new Set(['sump', 'sump-2']))).toBe('sump-3');
    expect(freeKey('硝子', 'level', 12, new Set())).toBe('level-12');
    expect(freeKey('硝子', 'level', 12, new Set(['level-12']))).toBe('level-13');
    expect(freeKey('Nul', 'kit', 1, new Set())).toBe('nul-2');
  });

  it('are always sound and never taken, whatever the name', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.oneof(
            fc.string({ unit: 'grapheme', maxLength: 90 }),
            fc.constantFrom('con', 'Sump', 'sump-2', 'x'.repeat(60), 'constructor', '__proto__'),
          ),
          { maxLength: 30 },
        ),
        (names) => {
          const taken = new Set<string>();
          names.forEach((name, i) => {
            const key = freeKey(name, 'level', i + 1, taken);
            expect([keyFault(key), taken.has(key)]).toEqual([undefined, false]);
            taken.add(key);
          });
        },
      ),
    );
  });

  it.each([
    ['Sump', /small letters/],
    ['a--b', /small letters/],
    ['-a', /small letters/],
    ['', /small letters/],
    ['lpt1', /keep for themselves/],
    ['a'.repeat(MAX_KEY_LETTERS + 1), /at most 60/],
  ])('refuse %s', (key, why) => {
    expect(keyFault(key)).toMatch(why);
  });

  it('are given to what is made without one, and to the second of two that are made with one', async () => {
    const { records } = await smallCollection();
    const taken = (): Set<string> => new Set(['one', 'two', 'kit']);
    const count = (): number => 2;
    const operations = [create('a', 'Sump'), create('b', 'Sump'), create('c', 'ones', 'one'), create('d', '硝子')];
    expect(keysOf(completeKeys(operations, taken, count))).toEqual(['sump', 'sump-2', 'one-2', 'level-6']);
    const sound = [create('a', 'Sump', 'own-key')];
    expect(completeKeys(sound, taken, count)).toBe(sound);
    expect(newKey(records, 'kit', 'One')).toBe('one-2');
  });

  it('are refused to two at once, across levels and kits', async () => {
    const { records } = await smallCollection();
    const all = (kind: 'level' | 'kit'): [string, JsonRecord][] =>
      Object.entries(records[kind]) as unknown as [string, JsonRecord][];
    const level = (id: string, key: string) => ({ kind: 'level' as const, id, record: { id, name: id, key } });
    expect(() => checkKeys([level('one', 'kit')], all)).toThrow('the key kit of level one is taken by the kit Kit');
    expect(() => checkKeys([level('new', 'two')], all)).toThrow('is taken by the level two');
    // Two that swap are sound together.
    expect(() => checkKeys([level('one', 'two'), level('two', 'one')], all)).not.toThrow();
    expect(() => checkKeys([level('three', 'x'), level('four', 'x')], all)).toThrow(
      'the key x of level four is taken by the level three',
    );
  });
});
