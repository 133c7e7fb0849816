import { promisify } from 'node:util';
import { gunzip, gzip } from 'node:zlib';
import { UPGRADES, decodeChunk, encodeChunk, type ModelUpgrades } from '@stravel/core';
import type { Transaction } from 'sequelize';
import type { Database } from '../db/database';
import type { SnapshotChunkRow, SnapshotRow } from '../db/models';
import { Stretches } from '../loop/stretches';
import { knownKind, type StoredChunk } from './chunked-document';

const compress = promisify(gzip);
const decompress = promisify(gunzip);

/** What a snapshot holds, without its bytes. */
export interface SnapshotIndex {
  /** Edits up to this one are in it; 0 when there is none yet. */
  readonly sequence: number;
  readonly chunks: readonly { readonly kind: string; readonly chunk: number; readonly count: number }[];
}

/** Of a document that has none yet. */
const NO_SNAPSHOT: SnapshotIndex = { sequence: 0, chunks: [] };

/**
 * Reads and writes the snapshots of documents. Bytes are stored gzipped. One that an earlier version of the model wrote is written anew,
 * whole, before anything of it is given.
 */
export class SnapshotRepository {
  constructor(
    private readonly database: Database,
    private readonly upgrades: ModelUpgrades = UPGRADES,
  ) {}

  /** From outside the write queue. @throws CoreError 'CHUNK_KIND', 'CHUNK_UNREADABLE', 'MODEL_NEWER' */
  async index(collection: string, document: string): Promise<SnapshotIndex> {
    const row = await this.upToDate(collection, document);
    return row ? this.indexOf(row) : NO_SNAPSHOT;
  }

  /** The row of a snapshot of the newest version. From outside the write queue. */
  private async upToDate(collection: string, document: string): Promise<SnapshotRow | undefined> {
    const row = await this.row(collection, document);
    return row && this.isOld(row) ? this.database.queue.exclusive(() => this.renewed(collection, document)) : row;
  }

  private async row(collection: string, document: string): Promise<SnapshotRow | undefined> {
    const row = await this.database.models.snapshots.findOne({ where: { collection, document }, raw: true });
    return (row as unknown as SnapshotRow | null) ?? undefined;
  }

  private isOld({ document, model }: SnapshotRow): boolean {
    return this.upgrades.checked(model, `document ${document}`) < this.upgrades.version;
  }

  /** The row of a snapshot; one of an earlier version is written anew first, all of it or nothing. From inside the write queue. */
  private async renewed(collection: string, document: string): Promise<SnapshotRow | undefined> {
    const row = await this.row(collection, document);
    if (!row || !this.isOld(row)) return row;
    const stretches = new Stretches();
    await this.database.sequelize.transaction(async (transaction) => {
      const renewed: { kind: string; chunk: number; count: number; bytes: Uint8Array }[] = [];
      for (const { kind: word, chunk, bytes } of await this.chunks(collection, document)) {
        const kind = knownKind(document, word);
        const records = decodeChunk(kind, bytes).map((record) => this.upgrades.record(kind, record, row.model));
        renewed.push({ kind, chunk, count: records.length, bytes: encodeChunk(kind, records) });
        await stretches.rest();
      }
      await this.write(transaction, collection, document, row.sequence, renewed);
    });
    return { ...row, model: this.upgrades.version };
  }

  private async indexOf({ collection, document, sequence }: SnapshotRow): Promise<SnapshotIndex> {
    const chunks = (await this.database.models.snapshotChunks.findAll({
      where: { collection, document },
      attributes: ['kind', 'chunk', 'count'],
      order: ['kind', 'chunk'],
      raw: true,
    })) as unknown as Pick<SnapshotChunkRow, 'kind' | 'chunk' | 'count'>[];
    return { sequence, chunks: chunks.filter((c) => c.count > 0) };
  }

  /**
   * The gzipped bytes of one chunk, undefined when there is none, and the sequence of its snapshot. From outside the write queue.
   * @throws CoreError as `index` does
   */
  async gzippedChunk(
    collection: string,
    document: string,
    kind: string,
    chunk: number,
  ): Promise<{ readonly bytes: Buffer; readonly sequence: number } | undefined> {
    await this.upToDate(collection, document);
    const row = await this.database.models.snapshotChunks.findOne({
      where: { collection, document, kind, chunk },
      raw: true,
    });
    // Read after the bytes: where the snapshot is replaced meanwhile, old bytes never bear its number as theirs and are asked for anew.
    const snapshot = row && (await this.row(collection, document));
    return snapshot ? { bytes: (row as unknown as SnapshotChunkRow).bytes, sequence: snapshot.sequence } : undefined;
  }

  /** From inside the write queue. @throws CoreError as `index` does */
  async load(collection: string, document: string): Promise<{ sequence: number; chunks: StoredChunk[] }> {
    const row = await this.renewed(collection, document);
    return { sequence: row?.sequence ?? 0, chunks: await this.chunks(collection, document) };
  }

  private async chunks(collection: string, document: string): Promise<StoredChunk[]> {
    const rows = (await this.database.models.snapshotChunks.findAll({
      where: { collection, document },
      order: ['kind', 'chunk'],
      raw: true,
    })) as unknown as SnapshotChunkRow[];
    return Promise.all(
      rows.map(async (row) => ({
        kind: row.kind,
        chunk: row.chunk,
        bytes: new Uint8Array(await decompress(row.bytes)),
      })),
    );
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
      'INSERT INTO snapshots (collection, document, sequence, model) VALUES (?, ?, ?, ?) ' +
        'ON CONFLICT (collection, document) DO UPDATE SET sequence = excluded.sequence, model = excluded.model',
      { replacements: [collection, document, sequence, this.upgrades.version], transaction },
    );
  }
}
