import { TestBed } from '@angular/core/testing';
import { provideStore, Store } from '@ngrx/store';
import { encodeChunk, type JsonRecord, type LoggedEdit, type Operation } from '@stravel/core';
import { ApiClient, type SnapshotIndex } from '../api/api-client';
import { DocumentRegistry } from './document-registry';
import { recordsFeature } from './records/records-store';

const marker = (id: string, x: number): JsonRecord => ({ id, kind: 'spawn', position: [x, 0, 0], turn: 0 });
const moved = (sequence: number, id: string, before: number, after: number): LoggedEdit => ({
  id: `e${sequence}`,
  person: 'p',
  label: 'move',
  undoes: null,
  sequence,
  at: '',
  operations: [{ document: 'st', kind: 'marker', id, field: 'position', before: [before, 0, 0], after: [after, 0, 0] }],
});

describe('opening documents', () => {
  let index: SnapshotIndex;
  let chunks: (chunk: number) => { sequence: number; bytes: Uint8Array };
  let log: LoggedEdit[];
  let whileLoading: () => void;
  let asked: string[];
  let registry: DocumentRegistry;

  beforeEach(async () => {
    index = { sequence: 5, chunks: [{ kind: 'marker', chunk: 0, count: 1 }] };
    chunks = () => ({ sequence: index.sequence, bytes: encodeChunk('marker', [marker('m', 1)]) });
    log = [];
    whileLoading = () => undefined;
    asked = [];
    TestBed.configureTestingModule({
      providers: [
        provideStore({ [recordsFeature.name]: recordsFeature.reducer }),
        {
          provide: ApiClient,
          useValue: {
            snapshot: (_c: string, document: string) =>
              Promise.resolve(document === 'records' ? { sequence: 0, chunks: [] } : index),
            chunk: (_c: string, _d: string, _k: string, chunk: number) => {
              asked.push(`chunk ${chunk}`);
              return Promise.resolve(chunks(chunk));
            },
            editsOfDocument: (_c: string, document: string, after: number) => {
              asked.push(`edits after ${after}`);
              whileLoading();
              return Promise.resolve(document === 'records' ? [] : log.filter(({ sequence }) => sequence > after));
            },
          },
        },
      ],
    });
    registry = TestBed.inject(DocumentRegistry);
    await registry.open('c', []);
    asked = [];
  });

  const x = async () => (await registry.stratum('st')).tables.marker.get('m')?.position[0];

  it('lays the log since the snapshot over it', async () => {
    log = [moved(6, 'm', 1, 2), moved(7, 'm', 2, 3)];
    expect(await x()).toBe(3);
    expect(asked).toEqual(['edits after 5', 'chunk 0']);
  });

  it('says so when there is something of a kind that this page does not know', async () => {
    index = { sequence: 5, chunks: [{ kind: 'reef', chunk: 0, count: 1 }] };
    await expect(registry.stratum('st')).rejects.toThrow(
      'The document st contains objects of a kind that this page does not know: reef. Reload it.',
    );
    // It may be asked for again.
    index = { sequence: 5, chunks: [{ kind: 'marker', chunk: 0, count: 1 }] };
    expect(await x()).toBe(1);
  });

  it('loads once, however often it is asked for', async () => {
    await Promise.all([x(), x(), x()]);
    expect(asked).toHaveLength(2);
  });

  it('takes an edit that comes while it loads, and takes it once', async () => {
    log = [moved(6, 'm', 1, 2)];
    whileLoading = () => {
      registry.applyLogged(moved(6, 'm', 1, 2));
      registry.applyLogged(moved(7, 'm', 2, 9));
    };
    expect(await x()).toBe(9);
    registry.applyLogged(moved(7, 'm', 2, 9));
    registry.applyLogged(moved(8, 'm', 9, 10));
    expect(await x()).toBe(10);
  });

  it('starts over when the snapshot was replaced under it, with nothing left of the old one', async () => {
    let tries = 0;
    chunks = () => {
      if (++tries === 1) return { sequence: 6, bytes: encodeChunk('marker', [marker('ghost', 0)]) };
      return { sequence: 5, bytes: encodeChunk('marker', [marker('m', 4)]) };
    };
    expect(await x()).toBe(4);
    expect(registry.openStratum('st')?.tables.marker.has('ghost')).toBe(false);
  });

  it('starts over with the records too, so that no record of an older snapshot stays', async () => {
    const level = (id: string): JsonRecord => ({ id, name: id, set: 's', strata: [], binned: null, order: 'a0' });
    index = { sequence: 5, chunks: [{ kind: 'level', chunk: 0, count: 1 }] };
    const api = TestBed.inject(ApiClient);
    jest.spyOn(api, 'snapshot').mockImplementation(() => Promise.resolve(index));
    let tries = 0;
    chunks = () =>
      ++tries === 1
        ? { sequence: 9, bytes: encodeChunk('level', [level('ghost')]) }
        : { sequence: 5, bytes: encodeChunk('level', [level('real')]) };
    await registry.open('c', []);
    expect(Object.keys(TestBed.inject(Store).selectSignal(recordsFeature.selectTables)().level)).toEqual(['real']);
  });

  it('gives up, by name, on a document that never stands still, and can be asked again', async () => {
    chunks = () => ({ sequence: 99, bytes: encodeChunk('marker', []) });
    await expect(registry.stratum('st')).rejects.toThrow('The stratum st changes faster than it can be loaded.');
    chunks = () => ({ sequence: 5, bytes: encodeChunk('marker', [marker('m', 1)]) });
    expect(await x()).toBe(1);
  });

  it('lays what waits in the outbox over what the server has, and leaves that alone when others edit it', async () => {
    const mine: Operation = {
      document: 'st',
      kind: 'marker',
      id: 'm',
      field: 'position',
      before: [1, 0, 0],
      after: [50, 0, 0],
    };
    await registry.open('c', [{ id: 'mine', operations: [mine] }]);
    expect(await x()).toBe(50);
    registry.applyLogged(moved(6, 'm', 1, 2));
    expect(await x()).toBe(50);
    registry.drop('mine');
    expect(await x()).toBe(2);
  });

  it('lays in steps of which views that count hear once, and whole when something comes between', async () => {
    await x();
    const before = registry.contentVersion();
    const operation = (value: number): Operation => ({
      document: 'st',
      kind: 'marker',
      id: 'm',
      field: 'position',
      before: [1, 0, 0],
      after: [value, 0, 0],
    });
    const step = registry.layInSteps({ id: 'mine', operations: [operation(2), operation(3), operation(4)] }, 1);
    expect([step(), await x(), registry.contentVersion() - before]).toEqual([true, 2, 0]);
    registry.finishLaying();
    expect([step(), await x()]).toEqual([false, 4]);
    expect(registry.contentVersion()).toBeGreaterThan(before);
  });

  it('tells of every change by its version, and forgets all at the next collection', async () => {
    await x();
    const before = registry.contentVersion();
    registry.lay({
      id: 'new',
      operations: [
        { document: 'st', kind: 'marker', id: 'n', field: null, before: null, after: marker('n', 0) as never },
      ],
    });
    expect(registry.contentVersion()).toBe(before + 1);
    await registry.open('other', []);
    expect(registry.openStratum('st')).toBeUndefined();
    expect(TestBed.inject(Store).selectSignal(recordsFeature.selectLoaded)()).toBe(true);
  });
});
