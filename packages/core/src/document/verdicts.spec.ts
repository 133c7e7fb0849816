import fc from 'fast-check';
import { goldenCollection, variants } from '../../../../golden/content';
import { ITEM_KINDS } from '../items';
import type { EditableKind } from '../model/records';
import { RECORD_KINDS } from '../records';
import { SHAPES } from './record-shapes';
import { recordFaults } from './validate-record';

/** Values that some rule somewhere stumbles over. */
const ODD = fc.oneof(
  fc.constantFrom<unknown>(
    null,
    undefined,
    '',
    'a',
    '__proto__',
    '../up',
    'Bad Key',
    '2026-01-31',
    '\u202ename',
    'x'.repeat(81),
    'x'.repeat(201),
    0,
    -0,
    1,
    -1,
    0.5,
    1e9,
    1e13,
    NaN,
    Infinity,
    -Infinity,
    true,
    false,
    [],
    {},
    [null],
    [1, 2],
    [0, 0, 0],
    [NaN, 0, 0],
    { min: [0, 0, 0] },
    { lit: { deep: 1 } },
    { form: 'box' },
    { kind: 'after', levels: [] },
    { '0': '.', '1-1': '5 x' },
  ),
  fc.jsonValue(),
);
/** Where to spoil a record and how: steps choose among what is there. */
const SPOIL = fc.record({
  steps: fc.array(fc.nat(1000), { minLength: 1, maxLength: 4 }),
  how: fc.constantFrom('put', 'drop', 'add', 'swap'),
  value: ODD,
});

type Spoil = typeof SPOIL extends fc.Arbitrary<infer T> ? T : never;

function spoil(whole: unknown, { steps, how, value }: Spoil): unknown {
  if (steps.length === 0 || typeof whole !== 'object' || whole === null) return how === 'put' ? value : whole;
  const [step, ...rest] = steps;
  const keys = Object.keys(whole);
  if (keys.length === 0) return value;
  const key = keys[step % keys.length];
  const copy: unknown = Array.isArray(whole) ? [...(whole as unknown[])] : { ...whole };
  const table = copy as Record<string, unknown>;
  if (rest.length > 0) table[key] = spoil(table[key], { steps: rest, how, value });
  else if (how === 'drop' && Array.isArray(copy)) copy.splice(step % keys.length, 1);
  else if (how === 'drop') delete table[key];
  else if (how === 'add' && Array.isArray(copy)) copy.push(copy[0]);
  else if (how === 'add') table[`${key}x`] = value;
  else if (how === 'swap') table[key] = table[keys[(step * 7 + 1) % keys.length]];
  else table[key] = value;
  return copy;
}

describe('a check gives the verdict of its schema', () => {
  const samples = new Map<EditableKind, readonly object[]>();
  beforeAll(async () => {
    const { records } = await goldenCollection();
    for (const kind of RECORD_KINDS) samples.set(kind, Object.values(records[kind]));
    for (const kind of ITEM_KINDS) samples.set(kind, variants(kind));
  });
  const verdicts = (kind: EditableKind, value: unknown): [boolean, boolean] => [
    SHAPES[kind].check(value),
    SHAPES[kind].yup.isValidSync(value, { strict: true }),
  ];

  it.each([...RECORD_KINDS, ...ITEM_KINDS])('of every sound %s, and of those that are spoiled', (kind) => {
    const sound = samples.get(kind) ?? [];
    expect(sound.length).toBeGreaterThan(0);
    for (const one of sound) expect([one, ...verdicts(kind, one)]).toEqual([one, true, true]);
    let refused = 0;
    fc.assert(
      fc.property(fc.nat(1000), fc.array(SPOIL, { minLength: 1, maxLength: 2 }), (which, spoils) => {
        const value = spoils.reduce<unknown>(spoil, sound[which % sound.length]);
        const [check, schema] = verdicts(kind, value);
        if (!check) refused++;
        expect(check).toBe(schema);
        // Refused squares has words for it, and a value that is no sound record has none that are missing.
        if (!check) expect(recordFaults(kind, value).every(({ message }) => message !== '')).toBe(true);
      }),
      { numRuns: 400 },
    );
    expect(refused).toBeGreaterThan(40);
  });

  it('refuses a group template whose parts are no parts without falling over them', () => {
    const collection = { ...samples.get('collection')?.[0], groupTemplates: [{ name: 'halls', parts: [null] }] };
    expect(recordFaults('collection', collection).map(({ path }) => path)).toContain('groupTemplates[0].parts[0]');
  });
});
