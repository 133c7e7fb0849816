import fc from 'fast-check';
import { applyOperations, type DocumentState } from '../document/document-state';
import { invertOperations } from '../document/operation';
import type { Field, FieldValue } from '../model/field';
import type { RecordTables } from '../model/records';
import { emptyRecordTables } from '../records';
import { smallCollection } from '../testing';
import { planFieldChange } from './field-change';
import { fieldFindings } from './field-findings';
import { defaultValues, uniqueKey, valueOf } from './field-tables';
import { fieldFault, fieldText, linkLookup, plainText, readFieldText, splitList } from './field-value';
import { linkUses, redirectLinks } from './links';
import { matchesPattern, patternFault } from '../fields/pattern';

const field = (parts: Partial<Field>): Field => ({
  id: 'f',
  key: 'f',
  name: 'F',
  type: 'text',
  choices: [],
  order: 'a',
  ...parts,
});

async function tables(values: readonly FieldValue[] = []): Promise<RecordTables> {
  const { records } = await smallCollection();
  const model = records.level['one'];
  const level = Object.fromEntries(
    values.map((value, i) => [
      `l${i}`,
      { ...model, id: `l${i}`, name: `Level ${i}`, code: `C${i}`, order: `a${i}`, values: { f: value } },
    ]),
  );
  return {
    ...records,
    level: values.length > 0 ? level : records.level,
    field: {},
    register: {
      moods: { id: 'moods', name: 'Moods', help: '', order: 'a' },
      tones: { id: 'tones', name: 'Tones', help: '', order: 'b' },
    },
    entry: {
      ember: { id: 'ember', register: 'moods', name: 'Ember', order: 'a', values: {} },
      haze: { id: 'haze', register: 'moods', name: 'Haze', order: 'b', values: {} },
      low: { id: 'low', register: 'tones', name: 'Low', order: 'a', values: {} },
    },
  };
}

describe('values of fields', () => {
  it('are read from text as their type, or refused with what was wrong', async () => {
    const links = linkLookup(await tables());
    const cases: readonly (readonly [Partial<Field>, string, FieldValue | { fault: string }])[] = [
      [{ type: 'number' }, ' 2,5 ', 2.5],
      [{ type: 'number', high: 10 }, '12', { fault: '12 is above 10.' }],
      [{ type: 'number', low: 0 }, '-1', { fault: '-1 is below 0.' }],
      [{ type: 'whole number' }, '2.5', { fault: '2.5 is not a whole number.' }],
      [{ type: 'whole number' }, 'x', { fault: '“x” is not a number.' }],
      [{ type: 'yes/no' }, 'YES', true],
      [{ type: 'yes/no' }, 'perhaps', { fault: '“perhaps” is neither yes nor no.' }],
      [{ type: 'choice', choices: ['Dark', 'Ember'] }, 'dark', 'Dark'],
      [{ type: 'choice', choices: ['Dark'] }, 'grey', { fault: '“grey” is not one of: Dark.' }],
      [{ type: 'date' }, '2028-02-29', '2028-02-29'],
      [{ type: 'date' }, '2027-02-29', { fault: '“2027-02-29” is not a date, such as 2027-01-31.' }],
      [{ type: 'colour' }, '#A6452B', '#a6452b'],
      [{ type: 'point' }, '1, -2.5, 0', [1, -2.5, 0]],
      [{ type: 'point' }, '1, 2', { fault: '“1, 2” is not a point, such as 1.5, 0, -2.' }],
      [{ type: 'text', pattern: '[A-Z]{2}\\d+' }, 'AB12', 'AB12'],
      [{ type: 'text', pattern: '[A-Z]{2}\\d+' }, 'AB12x', { fault: '“AB12x” does not match [A-Z]{2}\\d+.' }],
      [{ type: 'entry', target: 'moods' }, 'ember', 'ember'],
      [{ type: 'entry', target: 'tones' }, 'ember', { fault: '“ember” is not an entry that may be linked here.' }],
      [{ type: 'level' }, 'one', 'one'],
      [{ type: 'number', list: true }, '1; 2;3', [1, 2, 3]],
      [{ type: 'number', list: true }, '1; b', { fault: '“b” is not a number.' }],
      [{ type: 'text', list: true }, 'a; "b; ""c"""; d', ['a', 'b; "c"', 'd']],
      [{ type: 'text' }, '   ', null],
    ];
    for (const [parts, text, wanted] of cases) {
      const read = readFieldText(field(parts), text, links);
      expect([text, read.fault === undefined ? read.value : { fault: read.fault }]).toEqual([text, wanted]);
    }
  });

  it('come back from their own text, whatever they are', async () => {
    const links = linkLookup(await tables());
    const text = fc.string({ minLength: 1 }).filter((one) => one.trim() !== '');
    const number = fc.double({ noNaN: true, noDefaultInfinity: true }).map((one) => one + 0);
    const values: readonly (readonly [
      Partial<Field>,
      fc.Arbitrary<string | number | boolean | [number, number, number]>,
    ])[] = [
      [{ type: 'text' }, text],
      [{ type: 'number' }, number],
      [{ type: 'yes/no' }, fc.boolean()],
      [{ type: 'point' }, fc.tuple(number, number, number)],
      [{ type: 'entry', target: 'moods' }, fc.constantFrom('ember', 'haze')],
    ];
    for (const [parts, value] of values) {
      fc.assert(
        fc.property(value, fc.array(value, { minLength: 1, maxLength: 6 }), (one, many) => {
          expect(readFieldText(field(parts), fieldText(field(parts), one, links), links).value).toEqual(one);
          const list = field({ ...parts, list: true });
          expect(readFieldText(list, fieldText(list, many, links), links).value).toEqual(many);
        }),
      );
    }
  });

  it('never throw, and what is read fits', async () => {
    const links = linkLookup(await tables());
    const types = fc.constantFrom<Partial<Field>>(
      { type: 'date' },
      { type: 'point', list: true },
      { type: 'choice', choices: ['a'] },
      { type: 'level' },
      { type: 'colour' },
      { type: 'number', list: true },
    );
    fc.assert(
      fc.property(types, fc.string(), (parts, text) => {
        const read = readFieldText(field(parts), text, links);
        if (read.fault === undefined) expect(fieldFault(field(parts), read.value, links)).toBeNull();
        else expect(read.fault).not.toBe('');
      }),
    );
    expect(splitList('"open')).toEqual(['open']);
    expect(plainText([true, 2, [1, 2, 3]])).toBe('yes; 2; 1, 2, 3');
  });

  it('match patterns in linear time, and name a pattern that is none', () => {
    expect(matchesPattern('(a+)+b', `${'a'.repeat(5000)}c`)).toBe(false);
    expect(patternFault('a{2}')).toBeNull();
    expect(patternFault('(')).toMatch(/missing/);
    expect(patternFault('(?=a)')).not.toBeNull();
    expect(matchesPattern('(', '(')).toBe(false);
  });

  it('lead by name only where one has it', async () => {
    const base = await tables();
    const twins = { ...base, entry: { ...base.entry, ember2: { ...base.entry['ember'], id: 'ember2' } } };
    const links = linkLookup(twins);
    const mood = field({ type: 'entry', target: 'moods' });
    expect(fieldText(mood, 'ember2', links)).toBe('ember2');
    expect(readFieldText(mood, 'Ember', links).fault).toBeDefined();
    expect(
      linkLookup({ ...base, level: { one: { ...base.level['one'], binned: '2027-01-01T00:00:00Z' } } }).find(
        field({ type: 'level' }),
        'one',
      ),
    ).toBeUndefined();
  });
});

describe('a change of a field', () => {
  const state = (of: RecordTables, defined: Field | null): DocumentState =>
    new Map([
      ['level', new Map(Object.entries(of.level) as never)],
      ['entry', new Map(Object.entries(of.entry) as never)],
      ['field', new Map(defined ? [[defined.id, defined as never]] : [])],
    ]) as DocumentState;

  it('converts what can be converted and keeps the rest', async () => {
    const now = await tables(['12', 'twelve', null, '7']);
    const text = field({});
    const change = planFieldChange(now, text, { ...text, type: 'whole number', required: true, high: 10 });
    expect(change.values.map(({ after, outcome }) => [after, outcome])).toEqual([
      ['12', 'kept'],
      ['twelve', 'kept'],
      [null, 'empty'],
      [7, 'converted'],
    ]);
    expect(change.counts).toMatchObject({ kept: 2, empty: 1, converted: 1 });
    expect(change.values[0].why).toBe('12 is above 10.');
    expect(change.operations.map(({ kind, field: changed }) => `${kind} ${changed}`)).toEqual([
      'field type',
      'field required',
      'field high',
      'level values.f',
    ]);
  });

  it('marks what is there twice, renames choices, moves with the key, drops with the field', async () => {
    const now = await tables(['dark', 'Dark', 'ember']);
    const text = field({});
    expect(planFieldChange(now, text, { ...text, unique: true }).values.map(({ outcome }) => outcome)).toEqual([
      'same',
      'twice',
      'same',
    ]);
    const choice = field({ type: 'choice', choices: ['dark', 'ember'] });
    const renamed = planFieldChange(
      now,
      choice,
      { ...choice, choices: ['gloom', 'ember'] },
      { renamedChoices: new Map([['dark', 'gloom']]) },
    );
    expect(renamed.values.map(({ after, outcome }) => [after, outcome])).toEqual([
      ['gloom', 'converted'],
      ['Dark', 'kept'],
      ['ember', 'same'],
    ]);
    expect(
      planFieldChange(now, text, { ...text, key: 'g' }).operations.filter(({ kind }) => kind === 'level'),
    ).toHaveLength(6);
    expect(planFieldChange(now, text, null).counts.dropped).toBe(3);
    const filled = planFieldChange(await tables([null]), text, { ...text, default: 'x' }, { fillEmpty: true });
    expect(filled.values[0]).toMatchObject({ after: 'x', outcome: 'converted' });
  });

  it('is taken back whole by its inverse, from any type to any other', async () => {
    const scalar = fc.oneof(
      fc.string(),
      fc.double({ noNaN: true, noDefaultInfinity: true }),
      fc.boolean(),
      fc.constantFrom('ember', '2027-01-01', '#aabbcc', '3'),
    );
    const value = fc.oneof(scalar, fc.constant(null), fc.array(scalar, { maxLength: 3 }));
    const shape = fc.record({
      type: fc.constantFrom<Field['type']>(
        'text',
        'number',
        'whole number',
        'yes/no',
        'choice',
        'date',
        'colour',
        'point',
        'entry',
      ),
      list: fc.boolean(),
      key: fc.constantFrom('f', 'g'),
      choices: fc.constantFrom([], ['ember', '3']),
      required: fc.boolean(),
      unique: fc.boolean(),
    });
    const base = await tables();
    fc.assert(
      fc.property(fc.array(value, { maxLength: 5 }), shape, fc.option(shape), (values, from, to) => {
        const model = Object.values(base.level)[0];
        const level = Object.fromEntries(
          values.map((one, i) => [`l${i}`, { ...model, id: `l${i}`, values: one === null ? {} : { [from.key]: one } }]),
        );
        const now: RecordTables = { ...base, level: level as RecordTables['level'] };
        const before = field({ ...from, target: 'moods' });
        const change = planFieldChange(now, before, to ? field({ ...to, target: 'moods' }) : null);
        const documents = state(now, before);
        applyOperations(documents, change.operations);
        // What was kept stands as it was.
        for (const { id, before: old, outcome } of change.values) {
          if (outcome !== 'kept') continue;
          const record = documents.get('level')?.get(id) as never;
          expect(valueOf(record, { key: (to ?? from).key })).toEqual(old);
        }
        applyOperations(documents, invertOperations(change.operations));
        for (const [id, one] of Object.entries(now.level))
          expect(valueOf(documents.get('level')?.get(id) as never, before)).toEqual(valueOf(one, before));
        expect(documents.get('field')?.get('f')).toMatchObject({ type: before.type, key: before.key });
      }),
    );
  });
});

describe('links', () => {
  it('tell where a thing is used, and are led elsewhere or cleared', async () => {
    const now = await tables(['ember', 'haze']);
    const mood = field({ type: 'entry', target: 'moods' });
    const kin = field({ id: 'kin', key: 'kin', type: 'entry', list: true, register: 'moods', target: 'moods' });
    const all: RecordTables = {
      ...now,
      field: { f: mood, kin },
      entry: { ...now.entry, haze: { ...now.entry['haze'], values: { kin: ['haze', 'ember', 'ember'] } } },
    };
    const uses = linkUses(all);
    expect(uses.get('ember')?.map(({ record, field: { name } }) => [record.id, name])).toEqual([
      ['l0', 'F'],
      ['haze', 'F'],
    ]);
    expect(redirectLinks(uses.get('ember') ?? [], 'ember', 'haze').map(({ after }) => after)).toEqual([
      'haze',
      ['haze'],
    ]);
    expect(redirectLinks(uses.get('ember') ?? [], 'ember', null).map(({ after }) => after)).toEqual([null, ['haze']]);
  });
});

describe('findings of fields', () => {
  it('name what does not fit, what is empty and what is there twice', async () => {
    const now = await tables(['AB', 'ab', 'x1', null]);
    const code = field({ pattern: '[A-Za-z]+', unique: true, required: true });
    const found = fieldFindings({ ...now, field: { f: code } });
    expect(found.map(({ code: kind, subject, severity }) => [kind, subject, severity])).toEqual([
      ['FIELD_TWICE', 'l1.f', 'error'],
      ['FIELD_MISFIT', 'l2.f', 'error'],
      ['FIELD_EMPTY', 'l3.f', 'warning'],
    ]);
    expect(found[1].message).toBe('F of Level 2: “x1” does not match [A-Za-z]+.');
    expect(fieldFindings({ ...emptyRecordTables(), field: { f: code } })).toEqual([]);
    expect(uniqueKey('A')).toBe(uniqueKey('a'));
    expect(defaultValues([field({ default: 3 }), field({ key: 'g' })])).toEqual({ f: 3 });
  });
});
