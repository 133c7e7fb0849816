import fc from 'fast-check';
import { MAX_JSON_DEPTH, isTooDeep } from './json-depth';

const nested = (depth: number): string => `${'['.repeat(depth)}${']'.repeat(depth)}`;

/** The depth of a value, counted plainly. */
const depthOf = (value: unknown): number => (typeof value === 'object' && value !== null ? 1 + Math.max(0, ...Object.values(value).map(depthOf)) : 0);

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

  it('is what counting the value gives', () => {
    fc.assert(
      fc.property(fc.json({ maxDepth: 80, depthSize: 'max' }), (json) => {
        expect(isTooDeep(json)).toBe(depthOf(JSON.parse(json)) > MAX_JSON_DEPTH);
      }),
    );
  });
});
