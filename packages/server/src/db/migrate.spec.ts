import { existsSync, mkdirSync, mkdtempSync, readdirSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { RECORDS_DOCUMENT, encodeChunk, type JsonRecord } from '@stravel/core';
import { smallCollection } from '@stravel/core/testing';
import { QueryTypes, Sequelize } from 'sequelize';
import { removeFolder, rename, startTestServer, edit } from '../testing/test-server';
import { openDatabase } from './database';
import { migrate } from './migrate';
import { migrations } from './migrations';

let folder: string;
let sequelize: Sequelize;

beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'stravel-migrate-'));
  sequelize = new Sequelize({ dialect: 'sqlite', storage: join(folder, 'stravel.sqlite'), logging: false });
});

afterEach(async () => {
  await sequelize.close();
  removeFolder(folder);
});

const tables = async (): Promise<string[]> =>
  (
    await sequelize.query<{ name: string }>("SELECT name FROM sqlite_master WHERE type = 'table' ORDER BY name", {
      type: QueryTypes.SELECT,
    })
  ).map(({ name }) => name);

/** The small collection as it was stored before levels and kits had keys; 'two' came by an edit after the snapshot. */
async function storeWithoutKeys(): Promise<void> {
  await migrate(sequelize, folder, migrations.slice(0, 2));
  const { records, assets } = await smallCollection();
  mkdirSync(join(folder, 'assets'));
  for (const [name, bytes] of assets) writeFileSync(join(folder, 'assets', name), bytes);
  const bare = (record: object): JsonRecord =>
    Object.fromEntries(Object.entries(record).filter(([key]) => key !== 'key')) as JsonRecord;
  const insert = (sql: string, replacements: unknown[]) => sequelize.query(sql, { replacements });
  await insert('INSERT INTO collections (id, name, created_at) VALUES (?, ?, ?)', [
    'small',
    'Small',
    '2026-01-01T00:00:00.000Z',
  ]);
  const chunk = async (kind: 'collection' | 'set' | 'level' | 'stratum' | 'kit' | 'piece', list: JsonRecord[]) =>
    insert('INSERT INTO snapshot_chunks (collection, document, kind, chunk, count, bytes) VALUES (?, ?, ?, 0, ?, ?)', [
      'small',
      RECORDS_DOCUMENT,
      kind,
      list.length,
      gzipSync(encodeChunk(kind, list)),
    ]);
  await chunk('level', [bare({ ...records.level['one'], name: 'Two' })]);
  for (const kind of ['collection', 'set', 'stratum', 'kit', 'piece'] as const)
    await chunk(kind, Object.values(records[kind]).map(bare));
  await insert('INSERT INTO snapshots (collection, document, sequence) VALUES (?, ?, 0)', ['small', RECORDS_DOCUMENT]);
  const operations = [
    {
      document: RECORDS_DOCUMENT,
      kind: 'level',
      id: 'two',
      field: null,
      before: null,
      after: bare(records.level['two']),
    },
  ];
  await insert(
    'INSERT INTO edits (collection, sequence, id, person, label, undoes, at, operations) VALUES (?, 1, ?, ?, ?, NULL, ?, ?)',
    ['small', 'made-two', 'p', 'new level', '2026-01-01T00:00:00.000Z', JSON.stringify(operations)],
  );
  await insert('INSERT INTO edit_documents (collection, document, sequence) VALUES (?, ?, 1)', [
    'small',
    RECORDS_DOCUMENT,
  ]);
}

describe('bringing a database up to date', () => {
  it('gives keys by an edit of the log, from snapshot and log, and puts a copy beside it', async () => {
    await storeWithoutKeys();
    expect((await tables()).includes('SequelizeMeta')).toBe(true);
    const test = await startTestServer(folder);
    const { edits } = (await (await test.get('/api/collections/small/edits')).json()) as {
      edits: { label: string; operations: { kind: string; id: string; after: string }[] }[];
    };
    expect(edits[1].operations.map(({ kind, id, after }) => [kind, id, after])).toEqual([
      ['level', 'one', 'two'],
      ['level', 'two', 'two-2'],
      ['kit', 'kit', 'kit'],
    ]);
    expect((await test.post('/api/collections/small/edits', edit([rename('Two', 'uno')]))).status).toBe(201);
    expect((await test.server.collections.give('small')).records.level['one']).toMatchObject({
      name: 'uno',
      key: 'two',
    });
    await test.stop();
    expect(readdirSync(folder).filter((name) => name.startsWith('stravel.before-0003-keys-and-bin.'))).toHaveLength(1);
    // Once is enough.
    await (await openDatabase(folder)).close();
    expect(readdirSync(folder).filter((name) => name.startsWith('stravel.before-'))).toHaveLength(1);
  });

  it('leaves nothing of a step that fails, and does it whole the next time', async () => {
    await migrate(sequelize, folder, migrations.slice(0, 2));
    const failing = {
      ...migrations[2],
      up: async (queries: Parameters<(typeof migrations)[number]['up']>[0]) => {
        await queries.createTable('half_made', { id: 'TEXT' });
        throw new Error('the power went');
      },
    };
    await expect(migrate(sequelize, folder, [...migrations.slice(0, 2), failing])).rejects.toThrow(
      '0003-keys-and-bin failed, nothing of it was kept',
    );
    expect(await tables()).not.toContain('half_made');
    await migrate(sequelize, folder);
    const [{ count }] = await sequelize.query<{ count: number }>('SELECT COUNT(*) AS count FROM SequelizeMeta', {
      type: QueryTypes.SELECT,
    });
    expect(count).toBe(migrations.length);
  });

  it('refuses a database of a newer Stravel, and one that is damaged', async () => {
    await migrate(sequelize, folder);
    await sequelize.query("INSERT INTO SequelizeMeta (name) VALUES ('9999-from-the-future')");
    await expect(openDatabase(folder)).rejects.toThrow(
      'was written by a newer Stravel: its step 9999-from-the-future is not known here',
    );
    const other = mkdtempSync(join(tmpdir(), 'stravel-migrate-'));
    writeFileSync(join(other, 'stravel.sqlite'), 'no database at all, however long this text may be'.repeat(100));
    await expect(openDatabase(other)).rejects.toThrow(/not a database/);
    expect(existsSync(join(other, 'stravel.sqlite'))).toBe(true);
    removeFolder(other);
  });
});
