import { emptyRecordTables, type RecordTables } from '@stravel/core';
import { pairsText, readPairs } from '../../links/value-pairs';
import { kindGroups, ownValueRows } from './item-kinds';

const tables: RecordTables = {
  ...emptyRecordTables(),
  register: {
    music: { id: 'music', name: 'Music', help: '', order: 'a0', kindsOf: 'volume' },
    moods: { id: 'moods', name: 'Moods', help: '', order: 'a1' },
  },
  entry: {
    drone: { id: 'drone', register: 'music', name: 'Drone', order: 'a0', values: { track: 'drone', loudness: 60 } },
  },
  field: {
    track: { id: 'track', key: 'track', name: 'Track', type: 'text', choices: [], order: 'a0', register: 'music' },
    loudness: {
      id: 'loudness',
      key: 'loudness',
      name: 'Loudness',
      type: 'number',
      choices: [],
      order: 'a1',
      register: 'music',
    },
  },
};

describe('kinds from registers', () => {
  it('are the entries of registers that offer them', () => {
    expect(
      kindGroups(tables, 'volume').map(({ register, entries }) => [register, entries.map(({ id }) => id)]),
    ).toEqual([['Music', ['drone']]]);
    expect(kindGroups(tables, 'marker')).toEqual([]);
  });

  it('give values that a thing may have for itself, nothing among them', () => {
    expect(
      ownValueRows(tables, 'drone', { loudness: null }).map(({ field, value, isOwn }) => [field.key, value, isOwn]),
    ).toEqual([
      ['track', 'drone', false],
      ['loudness', null, true],
    ]);
    expect(ownValueRows(tables, 'gone', {})).toEqual([]);
  });

  it('values by hand are read in pairs, with what is wrong', () => {
    expect(readPairs('note=hot glass; count = 3;').values).toEqual({ note: 'hot glass', count: 3 });
    expect(readPairs('=3').fault).toContain('“=3” is not a value');
    expect(pairsText({ note: 'hot', count: 3 })).toBe('note=hot; count=3');
  });
});
