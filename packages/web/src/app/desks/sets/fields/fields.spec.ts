import { emptyRecordTables, linkLookup, type Field } from '@stravel/core';
import { EMPTY_DRAFT, choiceLines, draftOf, keyOf, readDraft, renamedChoices, type FieldDraft } from './field-draft';

const links = linkLookup(emptyRecordTables());
const base = { id: 'f', order: 'a', register: null };
const read = (parts: Partial<FieldDraft>, taken: readonly string[] = []) =>
  readDraft({ ...EMPTY_DRAFT, name: 'Light', key: 'light', ...parts }, base, new Set(taken), links);

describe('a field as it is written', () => {
  it('reads what it was made from', () => {
    const field: Field = {
      ...base,
      key: 'light',
      name: 'Light',
      type: 'choice',
      choices: ['dim', 'bright'],
      list: true,
      figure: null,
      counted: null,
      target: null,
      group: 'look',
      help: 'How much',
      required: true,
      unique: null,
      low: null,
      high: null,
      pattern: null,
      default: ['dim'],
    };
    expect(readDraft(draftOf(field, links), base, new Set(), links).field).toEqual(field);
  });

  it.each<[Partial<FieldDraft>, keyof FieldDraft, string]>([
    [{ name: ' ' }, 'name', 'It needs a name.'],
    [{ key: 'Light' }, 'key', 'A key starts with a small letter, then letters and digits.'],
    [{ type: 'choice' }, 'choices', 'Write one choice a line.'],
    [{ type: 'choice', choices: 'a\na' }, 'choices', 'A choice is there twice.'],
    [{ type: 'number', low: 'x' }, 'low', '“x” is not a number.'],
    [{ type: 'number', low: '3', high: '2' }, 'high', 'Max is below min.'],
    [{ type: 'entry' }, 'target', 'Choose the register that it links to.'],
    [{ type: 'number', high: '2', default: '3' }, 'default', '3 is above 2.'],
  ])('names what is wrong in %j', (parts, part, fault) => {
    expect(read(parts).faults?.[part]).toBe(fault);
  });

  it('names a broken pattern and a key that is taken, and drops limits of another type', () => {
    expect(read({ pattern: '(' }).faults?.pattern).toMatch(/^Not a regular expression/);
    expect(read({}, ['light']).faults?.key).toBe('Another field has this key.');
    expect(read({ type: 'date', low: 'x', pattern: '(' }).field).toMatchObject({ low: null, pattern: null });
  });

  it('makes keys that are free, and sees which choices were renamed', () => {
    expect(keyOf('Lamp colour (m)', new Set())).toBe('lampColourM');
    expect(keyOf('2nd', new Set())).toBe('f2nd');
    expect(keyOf('Light', new Set(['light', 'light2']))).toBe('light3');
    expect(choiceLines(' a \n\nb')).toEqual(['a', 'b']);
    expect([...renamedChoices(['a', 'b', 'c'], ['a', 'x', 'c'])]).toEqual([['b', 'x']]);
    expect(renamedChoices(['a', 'b'], ['b', 'a']).size).toBe(0);
    expect(renamedChoices(['a', 'b'], ['a']).size).toBe(0);
  });
});
