import { emptyRecordTables, encodeChunk, type Operation } from '@stravel/core';
import { PlacementStore } from './placement-columns';
import { applyToTables } from './records/records-store';
import { StratumDocument, type StratumChange } from './stratum-document';

const placement = (id: string, x = 0) => ({
  id,
  piece: 'crate',
  position: [x, 0, 0] as const,
  turn: [0, 0, 0] as const,
  scale: [1, 1, 1] as const,
});

describe('PlacementStore', () => {
  it('keeps slots stable and uses free ones anew', () => {
    const store = new PlacementStore();
    ['a', 'b', 'c'].forEach((id, i) => store.put(placement(id, i)));
    store.delete('b');
    expect(store.slotOf('c')).toBe(2);
    expect(store.put(placement('d', 9))).toBe(1);
    expect(store.get('d')?.position).toEqual([9, 0, 0]);
    expect(store.get('b')).toBeUndefined();
    expect([store.size, store.slotCount]).toEqual([3, 3]);
    expect([...store.values()].map(({ id }) => id)).toEqual(['a', 'd', 'c']);
    expect([...store.piecesSeen]).toEqual([placement('a').piece]);
  });

  it('grows past its first room', () => {
    const store = new PlacementStore();
    for (let i = 0; i < 1000; i++) store.put(placement(`p${i}`, i));
    expect(store.get('p999')?.position[0]).toBe(999);
  });
});

describe('StratumDocument', () => {
  it('takes chunks, applies edits and tells exactly what changed', () => {
    const document = new StratumDocument('st');
    document.addChunk(
      'placement',
      encodeChunk('placement', [{ ...placement('a'), position: [1, 2, 3], turn: [0, 0, 0], scale: [1, 1, 1] }]),
    );
    document.addChunk('marker', encodeChunk('marker', [{ id: 'm', kind: 'spawn', position: [0, 0, 0], turn: 0 }]));
    const told: StratumChange[] = [];
    document.listen((change) => told.push(change));
    const operation: Operation = {
      document: 'st',
      kind: 'placement',
      id: 'a',
      field: 'position',
      before: [1, 2, 3],
      after: [4, 5, 6],
    };
    document.apply([operation, { ...operation, id: 'gone' }]);
    expect(document.tables.placement.get('a')?.position).toEqual([4, 5, 6]);
    expect(told).toEqual([{ stratum: 'st', whole: false, items: [{ kind: 'placement', id: 'a' }] }]);
    document.apply([{ document: 'st', kind: 'marker', id: 'm', field: null, before: {}, after: null }]);
    expect(document.content().marker).toEqual([]);
    expect(document.size).toBe(1);
  });
});

describe('applyToTables', () => {
  it('changes what an operation names and keeps all else by reference', () => {
    const tables = {
      ...emptyRecordTables(),
      set: { s: { id: 's', name: 'S', parent: null, order: 'a0', binned: null } },
    };
    const next = applyToTables(tables, [
      { document: 'records', kind: 'set', id: 's', field: 'name', before: 'S', after: 'T' },
    ]);
    expect(next.set['s'].name).toBe('T');
    expect(next.level).toBe(tables.level);
    expect(tables.set.s.name).toBe('S');
    expect(
      applyToTables(tables, [{ document: 'st', kind: 'block', id: 'b', field: null, before: {}, after: null }]),
    ).toBe(tables);
    expect(
      applyToTables(tables, [{ document: 'records', kind: 'set', id: 'gone', field: 'name', before: 'S', after: 'T' }])
        .set,
    ).toEqual(tables.set);
  });
});
