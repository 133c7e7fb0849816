import { createHash } from 'node:crypto';
import { mkdirSync } from 'node:fs';
import { readFile, rm } from 'node:fs/promises';
import { join } from 'node:path';
import type { BakeKind } from '@stravel/core';
import { writeFileDurably } from '../collections/write-file';
import type { Database } from '../db/database';
import type { BakeRow } from '../db/models';
import type { ThreadPool } from '../jobs/thread-pool';
import type { JSON_TASKS } from '../jobs/zipped-json';

/** A kept bake, without its bytes. */
export interface KeptBake {
  readonly kind: BakeKind;
  /** Id of the level, or of the rehearsal. */
  readonly subject: string;
  readonly key: string;
  readonly summary: unknown;
}

/** Bakes: bytes as files named by their hash, then the row. A row never names a file that is not whole. */
export class BakeRepository {
  private readonly folder: string;

  constructor(
    private readonly database: Database,
    dataFolder: string,
    private readonly now: () => Date,
    /** Bakes may be long: neither reading nor writing one holds the loop. */
    private readonly readers: Pick<ThreadPool, 'run'>,
  ) {
    this.folder = join(dataFolder, 'bakes');
    mkdirSync(this.folder, { recursive: true });
  }

  async all(collection: string): Promise<KeptBake[]> {
    const rows = (await this.database.models.bakes.findAll({
      where: { collection },
      raw: true,
    })) as unknown as BakeRow[];
    return rows.map((row) => ({
      kind: row.kind as BakeKind,
      subject: row.subject,
      key: row.key,
      summary: JSON.parse(row.summary) as unknown,
    }));
  }

  async keyOf(collection: string, kind: BakeKind, subject: string): Promise<string | undefined> {
    return (await this.row(collection, kind, subject))?.key;
  }

  /** The bake's value, undefined when none is kept or its file is gone. */
  async read(
    collection: string,
    kind: BakeKind,
    subject: string,
  ): Promise<{ key: string; gzipped: Buffer } | undefined> {
    const row = await this.row(collection, kind, subject);
    if (!row) return undefined;
    try {
      return { key: row.key, gzipped: await readFile(join(this.folder, row.file)) };
    } catch {
      return undefined;
    }
  }

  async readJson(collection: string, kind: BakeKind, subject: string): Promise<unknown> {
    const kept = await this.read(collection, kind, subject);
    return kept && this.readers.run<(typeof JSON_TASKS)['unzip-json']>('unzip-json', new Uint8Array(kept.gzipped));
  }

  async put(collection: string, { kind, subject, key, summary }: KeptBake, value: unknown): Promise<void> {
    const bytes = await this.readers.run<(typeof JSON_TASKS)['zip-json']>('zip-json', value);
    const file = `${createHash('sha256').update(bytes).digest('hex')}.json.gz`;
    await writeFileDurably(join(this.folder, file), bytes);
    const before = await this.row(collection, kind, subject);
    await this.database.queue.write((transaction) =>
      this.database.models.bakes.upsert(
        {
          collection,
          kind,
          subject,
          key,
          file,
          bytes: bytes.length,
          summary: JSON.stringify(summary),
          created_at: this.now().toISOString(),
        },
        { transaction },
      ),
    );
    if (before && before.file !== file) await this.dropUnused([before.file]);
  }

  /** Names of the files of a collection's bakes. */
  async filesOf(collection: string): Promise<string[]> {
    const rows = (await this.database.models.bakes.findAll({
      where: { collection },
      attributes: ['file'],
      raw: true,
    })) as unknown as Pick<BakeRow, 'file'>[];
    return rows.map(({ file }) => file);
  }

  /** Deletes those of some files that no row names. */
  async dropUnused(files: readonly string[]): Promise<void> {
    for (const file of files) {
      if ((await this.database.models.bakes.count({ where: { file } })) === 0)
        await rm(join(this.folder, file), { force: true });
    }
  }

  private async row(collection: string, kind: BakeKind, subject: string): Promise<BakeRow | undefined> {
    const row = await this.database.models.bakes.findOne({ where: { collection, kind, subject }, raw: true });
    return (row as unknown as BakeRow | null) ?? undefined;
  }
}
