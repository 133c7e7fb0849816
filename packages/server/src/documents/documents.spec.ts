import { gunzipSync } from 'node:zlib';
import { decodeChunk, type Placement } from '@stravel/core';
import { edit, removeFolder, startTestServer, type TestServer } from '../testing/test-server';
import { ChunkedDocument } from './chunked-document';

let test: TestServer;

beforeEach(async () => {
  test = await startTestServer();
});

afterEach(async () => {
  await test.stop();
  removeFolder(test.dataFolder);
});

const DOCUMENT = '/api/collections/small/documents/own';
const placement = (i: number, x = 0): Placement => ({
  id: `p${String(i).padStart(6, '0')}`,
  piece: 'pin',
  position: [x, 0, 0],
  turn: [0, 0, 0],
  scale: [1, 1, 1],
});

describe('documents over the network', () => {
  it('come as an index and chunks that say which edit they hold', async () => {
    const index = (await (await test.get(DOCUMENT)).json()) as {
      sequence: number;
      chunks: { kind: string; chunk: number; count: number }[];
    };
    expect(index).toEqual({
      sequence: 0,
      chunks: [
        { kind: 'divider', chunk: 0, count: 1 },
        { kind: 'marker', chunk: 0, count: 1 },
        { kind: 'placement', chunk: 0, count: 1 },
      ],
    });
    const answer = await test.get(`${DOCUMENT}/chunks/marker/0`);
    expect(answer.headers.get('Stravel-Sequence')).toBe('0');
    expect(decodeChunk('marker', new Uint8Array(await answer.arrayBuffer()))).toEqual([
      { id: 'm1', kind: 'spawn', position: [0, 0, 0], turn: 0 },
    ]);
  });

  it.each([
    [`${DOCUMENT}/chunks/marker/9`, 404, 'CHUNK_MISSING'],
    [`${DOCUMENT}/chunks/dragon/0`, 404, 'CHUNK_MISSING'],
    ['/api/collections/none/documents/own', 404, 'COLLECTION_MISSING'],
    ['/api/collections/small/edits?after=minus', 400, 'QUERY_INVALID'],
    ['/api/collections/small/bakes/dragon/one', 404, 'BAKE_KIND_UNKNOWN'],
    ['/api/collections/small/bakes/sight/one', 404, 'BAKE_MISSING'],
    ['/api/collections/small/jobs/none', 404, 'JOB_MISSING'],
    ['/api/assets/..%2F..%2Fetc%2Fpasswd', 422, 'ASSET_MISSING'],
  ])('answers %s with %i %s', async (path, status, code) => {
    const response = await test.get(path);
    expect([response.status, ((await response.json()) as { title: string }).title]).toEqual([status, code]);
    expect(response.headers.get('Content-Type')).toContain('application/problem+json');
  });

  it('are empty, not missing, when nothing stands in them', async () => {
    expect(await (await test.get('/api/collections/small/documents/nowhere')).json()).toEqual({
      sequence: 0,
      chunks: [],
    });
  });

  it('write only the chunks that an edit touched into a new snapshot', async () => {
    const many = Array.from({ length: 5000 }, (_unused, i) => placement(i));
    const operations = many.map((record) => ({
      document: 'own',
      kind: 'placement' as const,
      id: record.id,
      field: null,
      before: null,
      after: record as never,
    }));
    expect((await test.post('/api/collections/small/edits', edit(operations))).status).toBe(201);
    await test.server.edits.writeSnapshot('small', 'own');
    const chunkOf = async (chunk: number) =>
      Buffer.from(await (await test.get(`${DOCUMENT}/chunks/placement/${chunk}`)).arrayBuffer());
    const [first, second] = [await chunkOf(0), await chunkOf(1)];
    await test.post(
      '/api/collections/small/edits',
      edit([
        { document: 'own', kind: 'placement', id: 'p004900', field: 'position', before: [0, 0, 0], after: [7, 0, 0] },
      ]),
    );
    await test.server.edits.writeSnapshot('small', 'own');
    expect((await chunkOf(0)).equals(first)).toBe(true);
    expect((await chunkOf(1)).equals(second)).toBe(false);
    const index = (await (await test.get(DOCUMENT)).json()) as {
      sequence: number;
      chunks: { kind: string; count: number }[];
    };
    expect(index.sequence).toBe(2);
    expect(index.chunks.filter(({ kind }) => kind === 'placement').reduce((sum, { count }) => sum + count, 0)).toBe(
      5001,
    );
  }, 30000);
});

describe('a chunked document', () => {
  it('gives back what was put, whatever was removed between', async () => {
    const document = new ChunkedDocument();
    for (let i = 0; i < 30; i++) document.put('placement', placement(i).id, placement(i, i) as never);
    for (let i = 0; i < 30; i += 3) document.put('placement', placement(i).id, undefined);
    document.put('placement', placement(1).id, placement(1, 99) as never);
    const chunks = [...document.takeDirtyChunks()];
    expect([...document.takeDirtyChunks()]).toEqual([]);
    const again = await ChunkedDocument.fromChunks('own', chunks);
    expect(again.size).toBe(20);
    expect(again.state.get('placement')?.get(placement(1).id)).toMatchObject({ position: [99, 0, 0] });
    expect(again.state.get('placement')?.has(placement(0).id)).toBe(false);
  });

  it('is kept gzipped', async () => {
    const row = await test.database.models.snapshotChunks.findOne({
      where: { collection: 'small', document: 'own', kind: 'marker' },
      raw: true,
    });
    const bytes = (row as unknown as { bytes: Buffer }).bytes;
    expect(decodeChunk('marker', new Uint8Array(gunzipSync(bytes)))).toHaveLength(1);
  });
});
