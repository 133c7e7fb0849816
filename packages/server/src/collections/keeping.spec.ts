import {
  invertOperations,
  type CollectionContent,
  type Json,
  type JsonRecord,
  type LoggedEdit,
  type Operation,
} from '@stravel/core';
import { smallCollection } from '@stravel/core/testing';
import { edit, removeFolder, rename, startTestServer, type TestServer } from '../testing/test-server';
import type { ListedCollection } from './collection-keeping';

let test: TestServer;

beforeEach(async () => {
  test = await startTestServer();
});

afterEach(async () => {
  await test.stop();
  removeFolder(test.dataFolder);
});

interface Listing {
  readonly collections: ListedCollection[];
  readonly binned: ListedCollection[];
  readonly hasDemo: boolean;
}
const list = async (): Promise<Listing> => (await test.get('/api/collections')).json() as Promise<Listing>;
const send = (method: string, path: string, body: unknown = {}): Promise<Response> =>
  fetch(`${test.url}/api/collections${path}`, {
    method,
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(body),
  });
const made = async (response: Response): Promise<string> => ((await response.json()) as { id: string }).id;
const records = async (id: string): Promise<CollectionContent['records']> =>
  (await test.server.collections.give(id)).records;

describe('restoring into a collection', () => {
  const archiveOf = async (id: string): Promise<Uint8Array<ArrayBuffer>> =>
    new Uint8Array(await (await test.get(`/api/collections/${id}/archive`)).arrayBuffer());
  const zip = (path: string, body: Uint8Array<ArrayBuffer>): Promise<Response> =>
    fetch(`${test.url}/api/collections/${path}`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/zip' },
      body,
    });

  it('is looked at first, then made as one edit that is taken back at once', async () => {
    const archive = await archiveOf('small');
    const before = await test.server.collections.give('small');
    const changes: Operation[] = [
      rename('one', 'First'),
      {
        document: 'own',
        kind: 'placement',
        id: 'p1',
        field: null,
        before: before.strata.get('own')?.placement[0] as unknown as Json,
        after: null,
      },
    ];
    await test.post('/api/collections/small/edits', edit(changes));
    const preview = (await (await zip('small/restore/preview', archive)).json()) as { edit: number };
    expect(preview).toEqual({
      edit: 1,
      operations: 2,
      changes: [
        { kind: 'level', added: 0, changed: 1, removed: 0 },
        { kind: 'placement', added: 1, changed: 0, removed: 0 },
      ],
      loose: { count: 0, first: [] },
    });
    // A preview changes nothing; what was changed since it was made is not written over unseen.
    await test.post('/api/collections/small/edits', edit([rename('First', 'Premier')]));
    const late = await zip(`small/restore?edit=${preview.edit}&person=ines`, archive);
    expect([late.status, ((await late.json()) as { title: string }).title]).toEqual([422, 'RESTORE_CHANGED']);
    expect((await zip('small/restore?edit=2&person=ines', archive)).status).toBe(200);
    expect(await test.server.collections.give('small')).toEqual(before);
    expect(await (await zip('small/restore/preview', archive)).json()).toEqual({
      edit: 3,
      operations: 0,
      changes: [],
      loose: { count: 0, first: [] },
    });
    const [made] = ((await (await test.get('/api/collections/small/edits?after=2')).json()) as { edits: LoggedEdit[] })
      .edits;
    expect([made.person, made.label, made.operations.length]).toEqual(['ines', 'restore an archive', 2]);
    await test.post('/api/collections/small/edits', { ...edit(invertOperations(made.operations)), undoes: made.id });
    expect((await records('small')).level['one'].name).toBe('Premier');
  });

  it('takes in levels, kits and meshes that were never there, and refuses what is no archive', async () => {
    const empty = await made(await send('POST', '', { name: 'Empty', ranks: ['Part'], devices: [] }));
    const archive = await archiveOf('small');
    expect((await zip(`${empty}/restore?edit=0&person=ines`, archive)).status).toBe(200);
    const [full, small] = [await test.server.collections.give(empty), await test.server.collections.give('small')];
    expect(full.strata).toEqual(small.strata);
    expect([...full.assets.keys()]).toEqual([...small.assets.keys()]);
    expect(full.records.collection['collection'].name).toBe('Empty');
    expect((await zip('small/restore/preview', new Uint8Array([1, 2, 3]))).status).toBe(422);
    expect((await zip('small/restore?edit=x&person=ines', archive)).status).toBe(400);
    expect((await zip('gone/restore/preview', archive)).status).toBe(404);
  });
});

describe('keeping collections', () => {
  it('makes one with a set, a level and the devices asked for', async () => {
    const response = await send('POST', '', { name: ' Salt ', ranks: ['World', 'Stage'], devices: ['handheld'] });
    expect(response.status).toBe(201);
    const { collection, set, level, device } = await records(await made(response));
    expect([collection['collection'].name, collection['collection'].ranks]).toEqual(['Salt', ['World', 'Stage']]);
    expect([
      Object.values(set).map(({ name }) => name),
      Object.values(level).map(({ name, key }) => [name, key]),
    ]).toEqual([['World 1'], [['New level', 'new-level']]]);
    expect(Object.keys(device)).toEqual(['handheld']);
    const { collections } = await list();
    expect(collections.map(({ name, levels }) => [name, levels])).toEqual([
      ['Small', 2],
      ['Salt', 1],
    ]);
    expect(collections[0].bytes).toBeGreaterThan(0);
  });

  it.each([
    [{}, 400, /name is a required field/],
    [{ name: '  ' }, 400, /name/],
    [{ name: 'x'.repeat(201) }, 400, /at most 200/],
    [{ name: 'A', ranks: [] }, 400, /ranks/],
    [{ name: 'A', devices: ['toaster'] }, 422, /no standard device toaster; there are: handheld/],
    [{ name: 'A', colour: 'red' }, 400, /unknown/],
    [null, 400, /.*/],
  ])('refuses %j and makes nothing', async (body, status, detail) => {
    const response = await send('POST', '', body);
    expect([response.status, ((await response.json()) as { detail: string }).detail]).toEqual([
      status,
      expect.stringMatching(detail),
    ]);
    expect((await list()).collections).toHaveLength(1);
  });

  it('copies with a log and levels of its own: equal ids never meet', async () => {
    await test.post('/api/collections/small/edits', edit([rename('one', 'uno')]));
    const copy = await made(await send('POST', '/small/copy', { name: 'Copy', withLevels: true }));
    expect(Object.values((await records(copy)).level).map(({ id, name, key }) => [id, name, key])).toEqual(
      Object.values((await records('small')).level).map(({ id, name, key }) => [id, name, key]),
    );
    await test.post(`/api/collections/${copy}/edits`, edit([rename('uno', 'eins')]));
    expect([(await records('small')).level['one'].name, (await records(copy)).level['one'].name]).toEqual([
      'uno',
      'eins',
    ]);
    const { edits } = (await (await test.get(`/api/collections/${copy}/edits`)).json()) as { edits: unknown[] };
    expect(edits).toHaveLength(1);
  });

  it('copies without levels: sets, kits and fields stay, what belongs to a level goes', async () => {
    const linked: JsonRecord = {
      id: 'f',
      key: 'gate',
      name: 'Gate',
      type: 'level',
      choices: [],
      order: 'a',
      register: 'r',
      default: null,
    };
    const operation = (kind: 'register' | 'field' | 'entry', record: JsonRecord) => ({
      document: 'records',
      kind,
      id: record['id'] as string,
      field: null,
      before: null,
      after: record,
    });
    const operations = [
      operation('register', { id: 'r', name: 'R', help: '', order: 'a' }),
      operation('field', linked),
      operation('entry', { id: 'e', register: 'r', name: 'E', order: 'a', values: { gate: 'one' } }),
    ];
    expect((await test.post('/api/collections/small/edits', edit(operations))).status).toBe(201);
    const { level, set, kit, stratum, entry } = await records(
      await made(await send('POST', '/small/copy', { name: 'Bare', withLevels: false })),
    );
    expect([level, stratum, Object.keys(set), Object.keys(kit), entry['e'].values]).toEqual([
      {},
      {},
      ['works'],
      ['kit'],
      { gate: null },
    ]);
  });

  it('renames by an edit, so that pages and the list agree, also when a page renames it', async () => {
    expect((await send('PATCH', '/small', { name: 'Large', person: 'p' })).status).toBe(204);
    expect((await list()).collections[0].name).toBe('Large');
    await test.post(
      '/api/collections/small/edits',
      edit([
        { document: 'records', kind: 'collection', id: 'collection', field: 'name', before: 'Large', after: 'Huge' },
      ]),
    );
    expect((await list()).collections[0].name).toBe('Huge');
    expect((await send('PATCH', '/small', { name: '', person: 'p' })).status).toBe(400);
  });

  it('bins, says so at its address, restores, and deletes for good', async () => {
    expect((await send('DELETE', '/small')).status).toBe(204);
    expect(await list()).toMatchObject({ collections: [], binned: [{ name: 'Small' }] });
    const gone = await test.get('/api/collections/small/documents/records');
    expect([gone.status, await gone.json()]).toEqual([404, expect.objectContaining({ title: 'COLLECTION_BINNED' })]);
    expect((await test.get('/api/collections/small/archive')).status).toBe(404);
    expect((await test.post('/api/collections/small/edits', edit([rename('one', 'uno')]))).status).toBe(404);
    expect((await send('POST', '/bin/small/restore')).status).toBe(204);
    expect((await records('small')).level['one'].name).toBe('one');
    expect((await send('DELETE', '/bin/small')).status).toBe(422);
    await send('DELETE', '/small');
    expect((await send('DELETE', '/bin/small')).status).toBe(204);
    expect(await list()).toMatchObject({ collections: [], binned: [] });
    await test.server.collections.take('small', await smallCollection());
    expect((await list()).collections[0].levels).toBe(2);
  });

  it('empties the bin of what has been there for over 30 days', async () => {
    await send('DELETE', '/small');
    const binnedDaysAgo = (days: number) =>
      test.database.models.collections.update(
        { binned_at: new Date(Date.now() - days * 86400000).toISOString() },
        { where: { id: 'small' } },
      );
    await binnedDaysAgo(29.9);
    expect((await list()).binned).toHaveLength(1);
    await binnedDaysAgo(30.1);
    expect((await list()).binned).toHaveLength(0);
    expect(await test.database.models.edits.count()).toBe(0);
  });

  it('keeps keys apart: a taken one is refused, a level made without one gets one', async () => {
    const level = (await records('small')).level['one'];
    const make = (id: string, key?: string) => ({
      document: 'records',
      kind: 'level' as const,
      id,
      field: null,
      before: null,
      after: { ...level, id, name: 'Three', code: '', key: key ?? null } as unknown as JsonRecord,
    });
    const bare = make('three');
    delete (bare.after as Record<string, unknown>)['key'];
    expect((await test.post('/api/collections/small/edits', edit([bare]))).status).toBe(201);
    expect((await test.post('/api/collections/small/edits', edit([make('four', 'three')]))).status).toBe(201);
    const { level: levels } = await records('small');
    expect([levels['three'].key, levels['four'].key]).toEqual(['three', 'three-2']);
    const taken = await test.post(
      '/api/collections/small/edits',
      edit([{ document: 'records', kind: 'level', id: 'one', field: 'key', before: 'one', after: 'kit' }]),
    );
    expect([taken.status, await taken.json()]).toEqual([
      422,
      expect.objectContaining({ title: 'KEY_TAKEN', detail: 'edit: the key kit of level one is taken by the kit Kit' }),
    ]);
    const unsound = await test.post(
      '/api/collections/small/edits',
      edit([{ document: 'records', kind: 'level', id: 'one', field: 'key', before: 'one', after: 'Ones' }]),
    );
    expect(unsound.status).toBe(422);
  });
});
