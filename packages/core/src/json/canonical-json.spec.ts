import fc from 'fast-check';
import type { Json } from '../model/json';
import { canonicalJson, parseJson } from './canonical-json';

const json: fc.Arbitrary<Json> = fc.letrec<{ value: Json }>((tie) => ({
  value: fc.oneof(
    { depthSize: 'small' },
    fc.constant(null),
    fc.boolean(),
    fc.double({ noNaN: true, noDefaultInfinity: true }),
    fc.integer(),
    fc.string(),
    fc.array(tie('value'), { maxLength: 5 }),
    fc.dictionary(
      fc.string({ minLength: 1, maxLength: 6 }).filter((key) => key !== '__proto__'),
      tie('value'),
      { maxKeys: 5 },
    ),
  ) as fc.Arbitrary<Json>,
})).value;

/** −0 is written as 0; nothing else may change. */
function withoutNegativeZero(value: Json): Json {
  if (Object.is(value, -0)) return 0;
  if (Array.isArray(value)) return (value as readonly Json[]).map(withoutNegativeZero);
  if (typeof value === 'object' && value !== null)
    return Object.fromEntries(Object.entries(value).map(([key, inner]) => [key, withoutNegativeZero(inner as Json)]));
  return value;
}

describe('canonical JSON', () => {
  it('reads back exactly what was written', () => {
    fc.assert(
      fc.property(json, (value) => expect(parseJson(canonicalJson(value), 'test')).toEqual(withoutNegativeZero(value))),
    );
  });

  it('is the same text for the same value, and once more of what it read', () => {
    fc.assert(
      fc.property(json, (value) => {
        const text = canonicalJson(value);
        expect(canonicalJson(parseJson(text, 'test'))).toBe(text);
      }),
    );
  });

  it('does not depend on the order in which keys were put', () => {
    fc.assert(
      fc.property(
        fc.dictionary(
          fc.string({ minLength: 1, maxLength: 5 }).filter((key) => key !== '__proto__'),
          fc.integer(),
          { minKeys: 2, maxKeys: 8 },
        ),
        (table) => {
          const turned = Object.fromEntries(Object.entries(table).reverse());
          expect(canonicalJson(turned)).toBe(canonicalJson(table));
        },
      ),
    );
  });

  it.each(['', '{', '{"a":1,}', '[1 2]', 'nope', '{"a":NaN}'])('names the file when %j is no JSON', (text) => {
    expect(() => parseJson(text, 'levels/x.json')).toThrow(/levels\/x.json/);
  });
});
