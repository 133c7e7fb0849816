import type { Operation } from '@stravel/core';
import { smallPng } from '@stravel/core/testing';
import { edit, removeFolder, rename, startTestServer, type TestServer } from '../testing/test-server';

let test: TestServer;

beforeEach(async () => {
  test = await startTestServer();
});

afterEach(async () => {
  await test.stop();
  removeFolder(test.dataFolder);
});

const restore = (body: Uint8Array | string, type = 'application/zip') =>
  fetch(`${test.url}/api/collections/restore`, {
    method: 'POST',
    headers: { 'Content-Type': type },
    body: body as Uint8Array<ArrayBuffer>,
  });

describe('collections over HTTP', () => {
  it('archives what stands now, restores it as new, and archives that to equal bytes', async () => {
    const make = (kind: Operation['kind'], record: { id: string }): Operation => ({
      document: 'records',
      kind,
      id: record.id,
      field: null,
      before: null,
      after: record,
    });
    const kinds: readonly (readonly [Operation['kind'], { id: string }])[] = [
      ['register', { id: 'tides', name: 'Tides', help: '', order: 'a' } as { id: string }],
      [
        'entry',
        { id: 'ebb', register: 'tides', name: 'Ebb', order: 'a', values: { way: [1, 2.5, 3] } } as { id: string },
      ],
      ['carriedValue', { id: 'shards', name: 'Shards', start: 0, counts: 'once', order: 'a' } as { id: string }],
      [
        'levelOrder',
        { id: 'one', rules: [{ kind: 'value', value: 'shards', least: 3 }], gains: [], resets: ['shards'] } as {
          id: string;
        },
      ],
    ];
    const posted = await test.post(
      '/api/collections/small/edits',
      edit([rename('one', 'uno'), ...kinds.map(([kind, record]) => make(kind, record))]),
    );
    expect(posted.status).toBe(201);
    const bytes = new Uint8Array(await (await test.get('/api/collections/small/archive')).arrayBuffer());
    const made = (await (await restore(bytes)).json()) as { id: string; name: string };
    expect(made.name).toBe('Small');
    const { records } = await test.server.collections.give(made.id);
    for (const [kind, record] of kinds)
      expect((records as Record<string, Record<string, unknown>>)[kind][record.id]).toEqual(record);
    const again = new Uint8Array(await (await test.get(`/api/collections/${made.id}/archive`)).arrayBuffer());
    expect(Buffer.compare(Buffer.from(bytes), Buffer.from(again))).toBe(0);
    expect((await test.post(`/api/collections/${made.id}/edits`, edit([rename('uno', 'eins')]))).status).toBe(201);
  }, 60000);

  it('refuses an archive that is something else, keeps what was there, and writes nothing', async () => {
    const refused = await restore('certainly not a zip');
    expect([refused.status, ((await refused.json()) as { title: string }).title]).toEqual([422, 'ARCHIVE_UNREADABLE']);
    expect((await restore('{}', 'text/plain')).status).toBe(415);
    const { collections } = (await (await test.get('/api/collections')).json()) as { collections: { id: string }[] };
    expect(collections.map(({ id }) => id)).toEqual(['small']);
  }, 60000);

  it('serves assets by hash and refuses names that climb', async () => {
    const { kit } = (await test.server.collections.give('small')).records;
    const glb = await test.get(`/api/assets/${kit['kit'].mesh}`);
    expect(Buffer.from(await glb.arrayBuffer()).toString('latin1', 0, 4)).toBe('glTF');
    expect((await test.get('/api/assets/..%2F..%2Fstravel.sqlite')).status).toBe(422);
  });

  it('keeps pictures by what they are, not by what they are called, and archives those in use', async () => {
    const put = (body: Uint8Array, type: string) =>
      fetch(`${test.url}/api/pictures`, {
        method: 'PUT',
        headers: { 'Content-Type': type },
        body: body as Uint8Array<ArrayBuffer>,
      });
    const refused = await put(new TextEncoder().encode('<svg onload="x()"/>'), 'image/png');
    expect([refused.status, ((await refused.json()) as { title: string }).title]).toEqual([422, 'PICTURE_UNREADABLE']);
    expect((await put(smallPng(1, 1), 'image/svg+xml')).status).toBe(415);
    // A PNG that calls itself a JPEG is kept and given back as what it is.
    const { name } = (await (await put(smallPng(2, 1), 'image/jpeg')).json()) as { name: string };
    const got = await test.get(`/api/assets/${name}`);
    expect([
      got.headers.get('content-type'),
      Buffer.compare(Buffer.from(await got.arrayBuffer()), Buffer.from(smallPng(2, 1))),
    ]).toEqual(['image/png', 0]);
    const field = { id: 'picture', key: 'picture', name: 'Picture', type: 'picture', choices: [], order: 'z' };
    const operations: Operation[] = [
      { document: 'records', kind: 'field', id: 'picture', field: null, before: null, after: field },
      { document: 'records', kind: 'level', id: 'one', field: 'values.picture', before: null, after: name },
    ];
    expect((await test.post('/api/collections/small/edits', edit(operations))).status).toBe(201);
    expect([...(await test.server.collections.give('small')).assets.keys()]).toContain(name);
  });

  it('remembers people and refuses one without a name', async () => {
    const made = await test.post('/api/people', { name: ' Odile ' });
    expect([made.status, ((await made.json()) as { name: string }).name]).toEqual([201, 'Odile']);
    expect((await test.post('/api/people', { name: '  ' })).status).toBe(400);
    expect((await test.post('/api/people', { nickname: 'x' })).status).toBe(400);
  });

  it('says so when the database has become read-only, and keeps what was saved', async () => {
    await test.post('/api/collections/small/edits', edit([rename('one', 'uno')]));
    await test.database.direct.first({ sql: 'PRAGMA query_only=ON', values: [] });
    const refused = await test.post('/api/collections/small/edits', edit([rename('uno', 'eins')]));
    expect(refused.status).toBe(503);
    expect(await refused.json()).toMatchObject({
      title: 'DATA_READ_ONLY',
      detail: expect.stringContaining('nothing of this change was saved'),
    });
    await test.database.direct.first({ sql: 'PRAGMA query_only=OFF', values: [] });
    expect((await test.post('/api/collections/small/edits', edit([rename('uno', 'eins')]))).status).toBe(201);
  });

  it('says so when the disk is full, keeps what was saved, and goes on when there is room again', async () => {
    await test.post('/api/collections/small/edits', edit([rename('one', 'uno')]));
    // No page more than there are: what SQLite does on a full disk.
    const limit = (pages: number) => test.database.direct.first({ sql: `PRAGMA max_page_count=${pages}`, values: [] });
    await limit(1);
    const long = edit([
      { document: 'records', kind: 'level', id: 'two', field: 'values.note', before: null, after: 'x'.repeat(9000) },
    ]);
    const refused = await test.post('/api/collections/small/edits', long);
    expect(refused.status).toBe(507);
    expect(await refused.json()).toMatchObject({ title: 'DISK_FULL' });
    await limit(1000000);
    const { edits } = (await (await test.get('/api/collections/small/edits')).json()) as { edits: unknown[] };
    expect(edits).toHaveLength(1);
    expect((await test.post('/api/collections/small/edits', long)).status).toBe(201);
    expect((await test.post('/api/collections/small/edits', edit([rename('uno', 'eins')]))).status).toBe(201);
  });
});
