import {
  applyOperations,
  emptyRecordTables,
  linkUses,
  type DocumentState,
  type Entry,
  type Field,
  type Operation,
  type RecordTables,
} from '@stravel/core';
import { deleteEntries, duplicateEntries, newEntry, newRegister, stepEntry } from './register-edits';

const entry = (id: string, order: string, values: Entry['values'] = {}): Entry => ({
  id,
  register: 'tides',
  name: id,
  order,
  values,
});
const field: Field = {
  id: 'turns',
  key: 'turns',
  name: 'Rotations to',
  type: 'entry',
  choices: [],
  order: 'a',
  register: 'tides',
  target: 'tides',
  list: true,
  default: ['ebb'],
};

function tables(...entries: Entry[]): RecordTables {
  return {
    ...emptyRecordTables(),
    register: { tides: { id: 'tides', name: 'Tides', help: '', order: 'a0' } },
    field: { turns: field },
    entry: Object.fromEntries(entries.map((one) => [one.id, one])),
  };
}

function after(of: RecordTables, operations: readonly Operation[]): Map<string, Entry> {
  const state = new Map([['entry', new Map(Object.entries(of.entry))]]) as unknown as DocumentState;
  applyOperations(state, operations);
  return state.get('entry') as unknown as Map<string, Entry>;
}

describe('edits of registers', () => {
  const all = tables(
    entry('ebb', 'a0'),
    entry('slack', 'a1', { turns: ['ebb', 'flood', 'slack'] }),
    entry('flood', 'a2', { turns: ['ebb'] }),
  );

  it('put new ones last, with the defaults of the fields', () => {
    const made = newEntry(all, 'tides', 'Spring');
    expect(made.entry.order > 'a2').toBe(true);
    expect(made.entry.values).toEqual({ turns: ['ebb'] });
    expect(newRegister(all, 'Bells').register.order > 'a0').toBe(true);
    const { copies } = duplicateEntries(all, [all.entry['ebb']]);
    expect(copies[0].order > 'a0' && copies[0].order < 'a1').toBe(true);
  });

  it('step over a neighbour, and stay at an end', () => {
    const order = (operations: readonly Operation[]) =>
      [...after(all, operations).values()].sort((a, b) => (a.order < b.order ? -1 : 1)).map(({ id }) => id);
    expect(order(stepEntry(all, all.entry['flood'], -1))).toEqual(['ebb', 'flood', 'slack']);
    expect(order(stepEntry(all, all.entry['ebb'], 1))).toEqual(['slack', 'ebb', 'flood']);
    expect(stepEntry(all, all.entry['ebb'], -1)).toEqual([]);
    expect(stepEntry(all, all.entry['flood'], 1)).toEqual([]);
  });

  it('lead the users of what is deleted elsewhere, or clear them, several at once', () => {
    const uses = linkUses(all);
    const replaced = after(all, deleteEntries([all.entry['ebb'], all.entry['flood']], uses, 'slack'));
    expect([...replaced.keys()]).toEqual(['slack']);
    expect(replaced.get('slack')?.values['turns']).toEqual(['slack']);
    const cleared = after(all, deleteEntries([all.entry['ebb']], uses, null));
    expect(cleared.get('slack')?.values['turns']).toEqual(['flood', 'slack']);
    expect(cleared.get('flood')?.values['turns']).toEqual([]);
  });
});
