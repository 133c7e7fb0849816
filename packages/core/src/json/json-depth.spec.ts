import fc from 'fast-check';
import { MAX_JSON_DEPTH, isTooDeep } from './json-depth';

const nested = (depth: number): string => `${'['.repeat(depth)}${']'.repeat(depth)}`;

/** The depth of a value, counted plainly. */
const depthOf = (value: unknown): number =>
  typeof value === 'object' && value !== null ? 1 + Math.max(0, ...Object.values(value).map(depthOf)) : 0;

describe('the depth of JSON', () => {
  it.each([
    [nested(MAX_JSON_DEPTH), false],
    [nested(MAX_JSON_DEPTH + 1), true],
    [`{"a":${nested(MAX_JSON_DEPTH)}}`, true],
    [JSON.stringify('['.repeat(100)), false],
    ['"\\"[[[[" ' + '[]'.repeat(100), false],
    ['['.repeat(1000000), true],
    ['', false],
  ])('%#', (json, expected) => {
    expect([isTooDeep(json), isTooDeep(new TextEncoder().encode(json))]).toEqual([expected, expected]);
  });

  it('is told of long text wherever its stretches end', () => {
    for (const letters of [65532, 65533, 65534, 65535, 65536]) {
      const text = `["${'a'.repeat(letters)}\\"[[",${'['.repeat(70)}`;
      expect(isTooDeep(text)).toBe(true);
      expect(isTooDeep(`["${'a'.repeat(letters)}\\"${'['.repeat(70)}"]`)).toBe(false);
    }
  });

  it('is what counting the value gives', () => {
    const side = fc.oneof(fc.string(), fc.constantFrom('[[{"', '\\"]', '\\'), fc.integer(), fc.constant([{}]));
    // Layer about layer, each a list or a table with something beside what it holds.
    const layers = fc.array(fc.tuple(fc.boolean(), side), { minLength: 40, maxLength: 90 });
    const seen = { within: 0, beyond: 0 };
    fc.assert(
      fc.property(layers, (steps) => {
        const value = steps.reduce<unknown>(
          (inner, [isList, beside]) => (isList ? [beside, inner, beside] : { a: beside, b: inner }),
          'x',
        );
        const isBeyond = depthOf(value) > MAX_JSON_DEPTH;
        seen[isBeyond ? 'beyond' : 'within']++;
        expect(isTooDeep(JSON.stringify(value))).toBe(isBeyond);
      }),
    );
    expect(Math.min(seen.within, seen.beyond)).toBeGreaterThan(5);
  });
});
