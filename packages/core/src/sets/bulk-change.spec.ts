import { smallCollection } from '../testing';
import type { Field } from '../model/field';
import { PURPOSES } from '../model/level';
import { bulkTexts, type BulkCommand } from './bulk-change';
import { linkLookup } from './field-value';
import { planCells } from './write-cells';

const field = (key: string, parts: Partial<Field>): Field => ({
  id: key,
  key,
  name: key,
  type: 'text',
  choices: [],
  order: 'a',
  ...parts,
});

describe('changing many values at once', () => {
  async function after(parts: Partial<Field>, values: readonly unknown[], command: BulkCommand, text = '', by = '') {
    const { records } = await smallCollection();
    const of = field('f', parts);
    const levels = values.map((value, i) => ({
      ...records.level['one'],
      id: `l${i}`,
      code: '',
      values: { f: value as never },
    }));
    const tables = {
      ...records,
      field: { f: of },
      level: Object.fromEntries(levels.map((level) => [level.id, level])),
    };
    const links = linkLookup(tables);
    const column = { path: 'values.f', field: of };
    const plan = planCells(tables, 'level', bulkTexts(levels, { column, command, text, by }, links), links);
    return plan.cells.map(({ after: value, outcome, why }) => (outcome === 'refused' ? why : value));
  }

  it('sets and clears', async () => {
    expect(await after({}, ['a', null], 'set', 'b')).toEqual(['b', 'b']);
    expect(await after({}, ['a', null], 'clear')).toEqual([null, null]);
    expect(await after({ required: true }, ['a'], 'clear')).toEqual(['f must be filled.']);
  });

  it('reads the purpose of earlier tables, and refuses what is none by its own words', async () => {
    const { records } = await smallCollection();
    const column = { path: 'purpose', field: field('purpose', { type: 'choice', choices: PURPOSES, required: true }) };
    const texts = ['trial', ' trial ', 'tool', 'constructor'];
    const record = records.level['one'];
    const { cells } = planCells(
      records,
      'level',
      texts.map((text) => ({ record, column, text })),
    );
    expect(cells.map(({ after: value, outcome, why }) => (outcome === 'refused' ? why : value))).toEqual([
      'test',
      'test',
      'tool',
      '“constructor” is not one of: play, test, tool.',
    ]);
  });

  it('adds to numbers without the noise of binary fractions, within their range', async () => {
    expect(await after({ type: 'number', high: 5 }, [0.1, null, 4.9], 'add to', '0,2')).toEqual([
      0.3,
      0.2,
      '5.1 is above 5.',
    ]);
    expect(await after({ type: 'number' }, [3], 'add to', '-3')).toEqual([0]);
    expect(await after({ type: 'number' }, [3], 'add to', 'much')).toEqual(['“much” is not a number.']);
  });

  it('appends to lists what they do not have, and to text', async () => {
    expect(await after({ list: true }, [['a'], ['a', 'b'], null], 'add to', 'b')).toEqual([
      ['a', 'b'],
      ['a', 'b'],
      ['b'],
    ]);
    expect(await after({}, ['soot', null], 'add to', ' and ash')).toEqual(['soot and ash', ' and ash']);
    expect(await after({}, ['soot'], 'add to', ' ')).toEqual([]);
  });

  it('replaces text wherever it stands, and passes over what has none of it', async () => {
    expect(await after({}, ['salt and salt', 'Salt', null], 'replace text', 'salt', 'ash')).toEqual(['ash and ash']);
    expect(
      await after({ type: 'choice', choices: ['dark', 'darkest'] }, ['dark'], 'replace text', 'dark', 'darkest'),
    ).toEqual(['darkest']);
    expect(await after({}, ['a.b'], 'replace text', '.', '')).toEqual(['ab']);
    expect(await after({}, ['a'], 'replace text', '', 'x')).toEqual([]);
  });
});
