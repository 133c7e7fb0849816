import type { RecordKind } from '../model/records';
import { RECORD_KINDS, emptyRecordTables } from '../records';
import { recordInTables, tablesOfKept, tablesWith } from './record-tables';

const device = (id: string, name: string) => ({ id, name });

describe('tables of records', () => {
  const tables = tablesWith(emptyRecordTables(), [
    { kind: 'device', id: 'a', record: device('a', 'one') },
    { kind: 'level', id: 'a', record: device('a', 'level') },
    { kind: 'block', id: 'b', record: device('b', 'an item is no record') },
  ]);

  it('hold what was put, each in the table of its kind', () => {
    expect(Object.keys(tables)).toEqual([...RECORD_KINDS]);
    expect(recordInTables(tables, 'device', 'a')).toEqual(device('a', 'one'));
    expect(recordInTables(tables, 'level', 'a')).toEqual(device('a', 'level'));
    expect(recordInTables(tables, 'block', 'b')).toBeUndefined();
  });

  it('know nothing of what every object has', () => {
    expect(recordInTables(tables, 'device', 'toString')).toBeUndefined();
    expect(recordInTables(tables, 'device', 'constructor')).toBeUndefined();
  });

  it('are copied where they change, and there only', () => {
    const next = tablesWith(tables, [
      { kind: 'device', id: 'b', record: device('b', 'two') },
      { kind: 'device', id: 'a', record: undefined },
      { kind: 'kit', id: 'not there', record: undefined },
    ]);
    expect(Object.keys(next.device)).toEqual(['b']);
    expect(Object.keys(tables.device)).toEqual(['a']);
    expect(next.level).toBe(tables.level);
  });

  it('are read from what is kept', () => {
    const kept = (kind: RecordKind) => (kind === 'device' ? [['a', device('a', 'one')] as const] : []);
    expect(tablesOfKept(kept)).toEqual({ ...emptyRecordTables(), device: { a: device('a', 'one') } });
  });
});
