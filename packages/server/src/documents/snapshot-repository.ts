import { promisify } from 'node:util';
import { gunzip, gzip } from 'node:zlib';
import type { Transaction } from 'sequelize';
import type { Database } from '../db/database';
import type { SnapshotChunkRow } from '../db/models';
import type { StoredChunk } from './chunked-document';

const compress = promisify(gzip);
const decompress = promisify(gunzip);

/** What a snapshot holds, without its bytes. */
export interface SnapshotIndex {
  /** Edits up to this one are in it; 0 when there is none yet. */
  readonly sequence: number;
  readonly chunks: readonly { readonly kind: string; readonly chunk: number; readonly count: number }[];
}

/** Reads and writes the snapshots of documents. Bytes are stored gzipped. */
export class SnapshotRepository {
  constructor(private readonly database: Database) {}

  async index(collection: string, document: string): Promise<SnapshotIndex> {
    const { snapshots, snapshotChunks } = this.database.models;
    const row = await snapshots.findOne({ where: { collection, document }, raw: true });
    if (!row) return { sequence: 0, chunks: [] };
    const chunks = (await snapshotChunks.findAll({
      where: { collection, document },
      attributes: ['kind', 'chunk', 'count'],
      order: ['kind', 'chunk'],
      raw: true,
    })) as unknown as Pick<SnapshotChunkRow, 'kind' | 'chunk' | 'count'>[];
    return { sequence: (row as unknown as { sequence: number }).sequence, chunks: chunks.filter((c) => c.count > 0) };
  }

  /** The gzipped bytes of one chunk, undefined when there is none. */
  async gzippedChunk(collection: string, document: string, kind: string, chunk: number): Promise<Buffer | undefined> {
    const row = await this.database.models.snapshotChunks.findOne({
      where: { collection, document, kind, chunk },
      raw: true,
    });
    return (row as unknown as SnapshotChunkRow | null)?.bytes;
  }

  async load(collection: string, document: string): Promise<{ sequence: number; chunks: StoredChunk[] }> {
    const { sequence } = await this.index(collection, document);
    const rows = (await this.database.models.snapshotChunks.findAll({
      where: { collection, document },
      order: ['kind', 'chunk'],
      raw: true,
    })) as unknown as SnapshotChunkRow[];
    const chunks = await Promise.all(
      rows.map(async (row) => ({
        kind: row.kind,
        chunk: row.chunk,
        bytes: new Uint8Array(await decompress(row.bytes)),
      })),
    );
    return { sequence, chunks };
  }

  async write(
    transaction: Transaction,
    collection: string,
    document: string,
    sequence: number,
    chunks: Iterable<{ kind: string; chunk: number; count: number; bytes: Uint8Array }>,
  ): Promise<void> {
    for (const { kind, chunk, count, bytes } of chunks) {
      const zipped = await compress(bytes);
      await this.database.sequelize.query(
        'INSERT INTO snapshot_chunks (collection, document, kind, chunk, count, bytes) VALUES (?, ?, ?, ?, ?, ?) ' +
          'ON CONFLICT (collection, document, kind, chunk) DO UPDATE SET count = excluded.count, bytes = excluded.bytes',
        { replacements: [collection, document, kind, chunk, count, zipped], transaction },
      );
    }
    await this.database.sequelize.query(
      'INSERT INTO snapshots (collection, document, sequence) VALUES (?, ?, ?) ' +
        'ON CONFLICT (collection, document) DO UPDATE SET sequence = excluded.sequence',
      { replacements: [collection, document, sequence], transaction },
    );
  }
}
