import { patchId, type Marker, type Operation, type Patch } from '@stravel/core';
import { StratumDocument, type StratumChange } from '../stratum-document';
import { hasPatches, patchedDocument } from './patched-document';

const marker = (id: string, x: number): Marker => ({ id, kind: 'exit', position: [x, 0, 0], turn: 0 });
const whole = (
  kind: 'marker' | 'patch',
  record: Marker | Patch | null,
  before: Marker | Patch | null = null,
): Operation => ({
  document: 'base',
  kind,
  id: (record ?? before)?.id as string,
  field: null,
  before: before as never,
  after: record as never,
});
const moved = (id: string, x: number): Patch => ({
  id: patchId('one', id),
  level: 'one',
  kind: 'marker',
  target: id,
  change: 'changed',
  fields: { position: [x, 0, 0] },
  was: { position: [0, 0, 0] },
});

describe('a shared stratum as one level sees it', () => {
  let shared: StratumDocument;
  beforeEach(() => {
    shared = new StratumDocument('base');
    shared.apply([whole('marker', marker('a', 1)), whole('marker', marker('b', 2)), whole('patch', moved('a', 9))]);
  });

  it('follows the stratum and the patches, telling only what changed', () => {
    const { document, stop } = patchedDocument(shared, 'one');
    const told: StratumChange[] = [];
    document.listen((change) => told.push(change));
    const places = () => [...document.tables.marker.values()].map(({ id, position }) => `${id}${position[0]}`).sort();
    expect(places()).toEqual(['a9', 'b2']);
    // What the level has otherwise stays, whatever the shared one does.
    shared.apply([
      { document: 'base', kind: 'marker', id: 'a', field: 'position', before: [1, 0, 0], after: [5, 0, 0] },
    ]);
    expect(places()).toEqual(['a9', 'b2']);
    shared.apply([
      { document: 'base', kind: 'marker', id: 'b', field: 'position', before: [2, 0, 0], after: [3, 0, 0] },
    ]);
    expect(places()).toEqual(['a9', 'b3']);
    shared.apply([whole('patch', null, moved('a', 9))]);
    expect(places()).toEqual(['a5', 'b3']);
    shared.apply([whole('patch', { ...moved('b', 0), change: 'hidden', fields: {}, was: {} })]);
    shared.apply([whole('patch', { ...moved('c', 0), change: 'added', fields: marker('c', 7) as never, was: {} })]);
    expect(places()).toEqual(['a5', 'c7']);
    expect(told.map(({ items }) => items.map(({ kind, id }) => `${kind} ${id}`).join())).toEqual([
      'marker a',
      'marker b',
      'marker a',
      'marker b',
      'marker c',
    ]);
    stop();
    shared.apply([whole('marker', null, marker('a', 5))]);
    expect(places()).toEqual(['a5', 'c7']);
  });

  it('is another one only where there are patches of the level', () => {
    expect([hasPatches(shared, 'one'), hasPatches(shared, 'two')]).toEqual([true, false]);
  });
});
