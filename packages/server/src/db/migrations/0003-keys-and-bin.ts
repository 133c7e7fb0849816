import { gunzipSync } from 'node:zlib';
import {
  RECORDS_DOCUMENT,
  compareOrdered,
  decodeChunk,
  freeKey,
  putRecord,
  takenKeys,
  tryOperations,
  type DocumentState,
  type Operation,
  isKeyed,
} from '@stravel/core';
import { DataTypes, QueryTypes, type QueryInterface } from 'sequelize';
import { tablesOf } from '../../documents/record-tables';
import type { Migration } from './migration';

/** Collections go to a bin before they are deleted; every level and kit gets a readable key. */
export const keysAndBin: Migration = {
  name: '0003-keys-and-bin',
  async up(queries) {
    await queries.addColumn('collections', 'binned_at', { type: DataTypes.TEXT });
    const collections = await queries.sequelize.query<{ id: string }>('SELECT id FROM collections ORDER BY id', {
      type: QueryTypes.SELECT,
    });
    for (const { id } of collections) await giveKeys(queries, id);
  },
  async down(queries) {
    await queries.removeColumn('collections', 'binned_at');
  },
};

/** Writes the keys as one edit of the log, so that history, undo and snapshots agree about them. */
async function giveKeys(queries: QueryInterface, collection: string): Promise<void> {
  const { level, kit } = tablesOf(await recordsOf(queries, collection));
  const taken = takenKeys({ level: {}, kit: {} });
  const operations = ([['level', level] as const, ['kit', kit] as const] as const).flatMap(([kind, table]) =>
    [
      ...Object.values<{ readonly id: string; readonly name: string; readonly order?: string; readonly key?: string }>(
        table,
      ),
    ]
      .sort((a, b) => compareOrdered({ id: a.id, order: a.order ?? '' }, { id: b.id, order: b.order ?? '' }))
      .flatMap(({ id, name, key }, i): Operation[] => {
        if (key !== undefined) return [];
        const made = freeKey(name, kind, i + 1, taken);
        taken.add(made);
        return [{ document: RECORDS_DOCUMENT, kind, id, field: 'key', before: null, after: made }];
      }),
  );
  if (operations.length === 0) return;
  const [{ last }] = await queries.sequelize.query<{ last: number | null }>(
    'SELECT MAX(sequence) AS last FROM edits WHERE collection = ?',
    {
      replacements: [collection],
      type: QueryTypes.SELECT,
    },
  );
  const sequence = (last ?? 0) + 1;
  await queries.sequelize.query(
    'INSERT INTO edits (collection, sequence, id, person, label, undoes, at, operations) VALUES (?, ?, ?, ?, ?, NULL, ?, ?)',
    {
      replacements: [
        collection,
        sequence,
        'keys-for-levels-and-kits',
        'stravel',
        'keys for levels and kits',
        new Date().toISOString(),
        JSON.stringify(operations),
      ],
    },
  );
  await queries.sequelize.query('INSERT INTO edit_documents (collection, document, sequence) VALUES (?, ?, ?)', {
    replacements: [collection, RECORDS_DOCUMENT, sequence],
  });
}

/** The small records as snapshot and log have them. */
async function recordsOf(queries: QueryInterface, collection: string): Promise<DocumentState> {
  const state: DocumentState = new Map();
  const read = <Row extends object>(sql: string, replacements: unknown[]): Promise<Row[]> =>
    queries.sequelize.query<Row>(sql, { replacements, type: QueryTypes.SELECT });
  const chunks = await read<{ kind: 'level' | 'kit'; bytes: Buffer }>(
    "SELECT kind, bytes FROM snapshot_chunks WHERE collection = ? AND document = ? AND kind IN ('level', 'kit')",
    [collection, RECORDS_DOCUMENT],
  );
  for (const { kind, bytes } of chunks) {
    for (const record of decodeChunk(kind, new Uint8Array(gunzipSync(bytes))))
      putRecord(state, kind, record['id'] as string, record);
  }
  const edits = await read<{ operations: string }>(
    'SELECT edits.operations FROM edit_documents JOIN edits USING (collection, sequence) WHERE edit_documents.collection = ? AND edit_documents.document = ? AND ' +
      'edit_documents.sequence > COALESCE((SELECT sequence FROM snapshots WHERE collection = ? AND document = ?), 0) ORDER BY edit_documents.sequence',
    [collection, RECORDS_DOCUMENT, collection, RECORDS_DOCUMENT],
  );
  for (const { operations } of edits) {
    // Written by the log from a checked edit.
    const keyed = (JSON.parse(operations) as Operation[]).filter(
      ({ document, kind }) => document === RECORDS_DOCUMENT && isKeyed(kind),
    );
    for (const { kind, id, record } of tryOperations(() => state, keyed).touched) putRecord(state, kind, id, record);
  }
  return state;
}
