import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gunzipSync, gzipSync } from 'node:zlib';
import {
  FIRST_MODEL_VERSION,
  MODEL_VERSION,
  ModelUpgrades,
  decodeChunk,
  encodeChunk,
  type Edit,
  type LoggedEdit,
  type Operation,
  type Upgrade,
} from '@stravel/core';
import { edit, removeFolder, startTestServer, type TestServer } from './testing/test-server';

/** A planted step: materials of blocks are written in capitals. */
const CAPITALS: Upgrade = {
  to: 2,
  why: 'planted',
  kind: 'block',
  mentions: 'material',
  isOne: (record) => 'planes' in record,
  record: (record) => ({
    ...record,
    material: typeof record['material'] === 'string' ? record['material'].toUpperCase() : null,
  }),
  value: (field, value) => ({
    field,
    value: field === 'material' && typeof value === 'string' ? value.toUpperCase() : value,
  }),
};
const PLAIN = new ModelUpgrades([]);
const PLANTED = new ModelUpgrades([CAPITALS]);

const AT = '/api/collections/small';

let folder: string;
let running: TestServer | undefined;

beforeEach(() => (folder = mkdtempSync(join(tmpdir(), 'stravel-model-'))));
afterEach(async () => {
  await running?.stop();
  running = undefined;
  removeFolder(folder);
});

/** A server whose model has gone some way, on the folder of the test; the one before ends. */
async function start(upgrades?: ModelUpgrades): Promise<TestServer> {
  await running?.stop();
  return (running = await startTestServer(folder, upgrades));
}

const material = (before: string, after: string): Operation => ({
  document: 'base',
  kind: 'block',
  id: 'slab',
  field: 'material',
  before,
  after,
});
const own = (version: number): Record<string, string> => ({ 'Stravel-Model': String(version) });
const titleOf = async (answer: Response): Promise<string> => ((await answer.json()) as { title: string }).title;

async function chunk(one: TestServer): Promise<unknown> {
  const bytes = new Uint8Array(await (await one.get(`${AT}/documents/base/chunks/block/0`)).arrayBuffer());
  return decodeChunk('block', bytes).map((record) => record['material']);
}

describe('a data folder of an earlier model', () => {
  it('is read as the newest: log, history, snapshots, undo, and nothing of the log is rewritten', async () => {
    const old = await start(PLAIN);
    const logged = edit([material('slate', 'chalk')]);
    expect((await old.post(`${AT}/edits`, logged, own(1))).status).toBe(201);
    const now = await start(PLANTED);
    // An index is given only once all chunks are of the newest version.
    expect(await (await now.get(`${AT}/documents/base`)).json()).toMatchObject({ sequence: 0 });
    const row = await now.database.models.snapshots.findOne({ where: { document: 'base' }, raw: true });
    expect([row, await chunk(now)]).toMatchObject([{ model: 2 }, ['SLATE']]);
    const { edits } = (await (await now.get(`${AT}/edits?after=0`)).json()) as { edits: LoggedEdit[] };
    expect(edits[0].operations).toEqual([material('SLATE', 'CHALK')]);
    expect(await (await now.get(`${AT}/edits/${logged.id}`)).json()).toMatchObject({
      operations: [material('SLATE', 'CHALK')],
    });
    const content = await now.server.collections.give('small');
    expect(content.strata.get('base')?.block[0].material).toBe('CHALK');
    const undo = edit([material('CHALK', 'SLATE')], { undoes: logged.id });
    expect((await now.post(`${AT}/edits`, undo, own(2))).status).toBe(201);
    const rows = await now.database.sequelize.query('SELECT model, operations FROM edits ORDER BY sequence');
    expect(rows[0]).toEqual([
      { model: 1, operations: JSON.stringify([material('slate', 'chalk')]) },
      { model: 2, operations: JSON.stringify([material('CHALK', 'SLATE')]) },
    ]);
    // And again from the disk.
    const again = await start(PLANTED);
    expect((await again.server.collections.give('small')).strata.get('base')?.block[0].material).toBe('SLATE');
  });

  it('that a newer server wrote is refused, naming the document', async () => {
    await start(PLANTED);
    const old = await start(PLAIN);
    const answer = await old.get(`${AT}/documents/base`);
    expect([answer.status, await answer.json()]).toMatchObject([
      422,
      {
        title: 'MODEL_NEWER',
        detail: expect.stringMatching(/^document base: it was written by a newer Stravel/) as string,
      },
    ]);
  });

  it('gives knots their ids', async () => {
    const one = await start();
    const knot = (x: number): object => ({ position: [x, 0, 0], widthMetres: 1, tags: [], handle: null });
    const path = { id: 'p', name: '', form: 'polyline', closed: false, knots: [knot(0), knot(1)] };
    const made: Operation = { document: 'own', kind: 'path', id: 'p', field: null, before: null, after: path as never };
    // As a page of the first version sends it, and one that says nothing.
    expect((await one.post(`${AT}/edits`, edit([made]), own(FIRST_MODEL_VERSION))).status).toBe(201);
    const moved = {
      ...made,
      field: 'knots',
      before: [knot(0), knot(1)] as never,
      after: [knot(2), knot(1), knot(3)] as never,
    };
    expect((await one.post(`${AT}/edits`, edit([moved]))).status).toBe(201);
    const [kept] = (await one.server.collections.give('small')).strata.get('own')?.path ?? [];
    expect(kept.knots.map(({ id, position }) => [id, position[0]])).toEqual([
      ['k0', 2],
      ['k1', 1],
      ['k2', 3],
    ]);
  });
});

describe('pages and servers of two versions', () => {
  it('tell each other: older edits are upgraded, newer refused', async () => {
    await start(PLAIN);
    const one = await start(PLANTED);
    expect((await one.get(`${AT}/documents/base`)).headers.get('Stravel-Model')).toBe('2');
    expect((await one.post(`${AT}/edits`, edit([material('slate', 'chalk')]), own(1))).status).toBe(201);
    expect(await chunk(one)).toEqual(['SLATE']);
    const content = await one.server.collections.give('small');
    expect(content.strata.get('base')?.block[0].material).toBe('CHALK');
    const newer = await one.post(`${AT}/edits`, edit([material('CHALK', 'SLATE')]), own(3));
    expect([newer.status, await titleOf(newer)]).toEqual([422, 'MODEL_NEWER']);
    for (const wrong of ['0', '-1', 'two', '1.5', '1e99', '']) {
      const answer = await one.post(`${AT}/edits`, edit([material('CHALK', 'SLATE')]), { 'Stravel-Model': wrong });
      expect([wrong, answer.status, /^MODEL_/.test(await titleOf(answer))]).toEqual([wrong, 422, true]);
    }
    expect(await one.server.edits.lastSequence('small')).toBe(1);
  });

  it('hear it first in the stream', async () => {
    const one = await start();
    const abort = new AbortController();
    const stream = await fetch(`${one.url}${AT}/events`, { signal: abort.signal });
    const reader = stream.body?.getReader();
    let text = '';
    while (!text.includes('data:')) text += Buffer.from((await reader?.read())?.value ?? []).toString('utf8');
    abort.abort();
    expect(text).toContain(`event: log\ndata: ${JSON.stringify({ last: 0, model: MODEL_VERSION })}`);
  });
});

describe('what does not fit', () => {
  it('an edit of the log that does not replay is an error that names document and edit', async () => {
    const one = await start();
    const broken: Edit = edit([material('slate', 'chalk')], { id: 'broken-one' });
    expect((await one.post(`${AT}/edits`, broken, own(MODEL_VERSION))).status).toBe(201);
    await one.database.sequelize.query(`UPDATE edits SET operations = replace(operations, '"slate"', '"gold"')`);
    const again = await start();
    await expect(again.server.collections.give('small')).rejects.toMatchObject({
      code: 'LOG_BROKEN',
      message: expect.stringMatching(
        /^document base: edit 1 \(broken-one\) does not fit what was there before it: block slab, material is "slate", the edit found "gold"/,
      ) as string,
    });
    // Nothing is written over it.
    const refused = await again.post(`${AT}/edits`, edit([material('gold', 'tin')]), own(MODEL_VERSION));
    expect([refused.status, await titleOf(refused)]).toEqual([422, 'LOG_BROKEN']);
  });

  it('a chunk of a kind that is not known is an error that names document and kind', async () => {
    const one = await start();
    const bytes = gzipSync(encodeChunk('block', []));
    await one.database.sequelize.query(
      `INSERT INTO snapshot_chunks (collection, document, kind, chunk, count, bytes) VALUES ('small', 'base', 'dragon', 0, 1, ?)`,
      { replacements: [bytes] },
    );
    const again = await start();
    await expect(again.server.collections.give('small')).rejects.toMatchObject({
      code: 'CHUNK_KIND',
      message: expect.stringMatching(/^document base: it contains objects of the kind "dragon"/) as string,
    });
  });

  it('an old document whose chunk cannot be read stays as it was', async () => {
    const one = await start(PLAIN);
    const cut = gzipSync(new Uint8Array(5));
    await one.database.sequelize.query(
      `INSERT INTO snapshot_chunks (collection, document, kind, chunk, count, bytes) VALUES ('small', 'base', 'volume', 0, 1, ?)`,
      { replacements: [cut] },
    );
    const now = await start(PLANTED);
    const answer = await now.get(`${AT}/documents/base`);
    expect([answer.status, await titleOf(answer)]).toEqual([422, 'CHUNK_UNREADABLE']);
    const [row] = await now.database.models.snapshotChunks.findAll({
      where: { document: 'base', kind: 'block' },
      raw: true,
    });
    const kept = decodeChunk('block', new Uint8Array(gunzipSync((row as unknown as { bytes: Buffer }).bytes)));
    expect(kept.map((record) => record['material'])).toEqual(['slate']);
  });
});
