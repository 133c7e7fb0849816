import { mkdirSync } from 'node:fs';
import { readdir, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { nameOf, type BakeKind, type KeyedRef, type PartHashes } from '@stravel/core';
import { Op, QueryTypes, type Transaction } from 'sequelize';
import { writeFileDurably } from '../collections/write-file';
import type { Database } from '../db/database';
import type { BakeRow, BakeSubjectRow } from '../db/models';
import { bakeFileName } from './bake-file';
import type { MadeBake } from './bake-tasks';

/** Bytes of all kept bakes from which on those that were not used for longest go. */
const MAX_BYTES = 4e9;
/** Keys that are asked for in one query. */
const KEYS_AT_ONCE = 500;
/** How often it is noted that a bake was used. */
const NOTED_EVERY_MS = 60000;

/** A kept bake, without its bytes. */
export interface KeptBake {
  readonly kind: BakeKind;
  readonly key: string;
  readonly path: string;
  readonly summary: unknown;
  readonly parts: PartHashes;
}

/** Bakes by kind and key: bytes as files named by their hash, then the row. A row never names a file that is not whole. */
export class BakeStore {
  private readonly folder: string;

  constructor(
    private readonly database: Database,
    dataFolder: string,
    private readonly now: () => Date,
    private readonly mostBytes = MAX_BYTES,
  ) {
    this.folder = join(dataFolder, 'bakes');
    mkdirSync(this.folder, { recursive: true });
  }

  /** Those of some keys that are kept, by name of kind and key. */
  async withKeys(collection: string, keys: readonly string[]): Promise<ReadonlyMap<string, KeptBake>> {
    const found = new Map<string, KeptBake>();
    for (let start = 0; start < keys.length; start += KEYS_AT_ONCE) {
      const rows = (await this.database.models.bakes.findAll({
        where: { collection, key: { [Op.in]: keys.slice(start, start + KEYS_AT_ONCE) } },
        raw: true,
      })) as unknown as BakeRow[];
      for (const row of rows) found.set(keptName(row.kind as BakeKind, row.key), this.keptOf(row));
    }
    return found;
  }

  /** A kept bake; that it was used is noted, to the minute. */
  async find(collection: string, kind: BakeKind, key: string): Promise<KeptBake | undefined> {
    const row = (await this.database.models.bakes.findOne({
      where: { collection, kind, key },
      raw: true,
    })) as unknown as BakeRow | null;
    if (!row) return undefined;
    const now = this.now();
    if (now.getTime() - Date.parse(row.used_at) >= NOTED_EVERY_MS) {
      await this.database.queue.write((transaction) =>
        this.database.models.bakes.update(
          { used_at: now.toISOString() },
          { where: { collection, kind, key }, transaction },
        ),
      );
    }
    return this.keptOf(row);
  }

  /** The key that each subject had last, by name of kind and subject. */
  async lastKeys(collection: string): Promise<ReadonlyMap<string, string>> {
    return new Map((await this.subjects(collection)).map((ref) => [nameOf(ref), ref.key]));
  }

  /** Says which bakes subjects have now. */
  async point(collection: string, refs: readonly KeyedRef[]): Promise<void> {
    if (refs.length === 0) return;
    await this.database.queue.write(async (transaction) => {
      for (const ref of refs) await this.pointTo(collection, ref, transaction);
    });
  }

  /** Forgets subjects that are no longer there; what they had stays until its bytes are wanted. @param there names of those that are */
  async forgetOthers(collection: string, there: ReadonlySet<string>): Promise<void> {
    await this.database.queue.write(async (transaction) => {
      for (const { kind, subject } of await this.subjects(collection, transaction))
        if (!there.has(nameOf({ kind, subject })))
          await this.database.models.bakeSubjects.destroy({ where: { collection, kind, subject }, transaction });
    });
  }

  /**
   * Keeps a bake: its file and its row in one slot of the write queue, so that no file goes that a row is about to name.
   * @param isCurrent whether a key is that of a bake as things stand; such a bake never goes
   */
  async keep(
    collection: string,
    ref: KeyedRef,
    { bytes, summary, parts }: MadeBake,
    isCurrent: (kind: string, key: string) => boolean,
  ): Promise<void> {
    const file = bakeFileName(bytes);
    await this.database.queue.exclusive(async () => {
      await writeFileDurably(join(this.folder, file), bytes);
      const { kind, key } = ref;
      const gone: string[] = [];
      await this.database.sequelize.transaction(async (transaction) => {
        const before = (await this.database.models.bakes.findOne({
          where: { collection, kind, key },
          raw: true,
          transaction,
        })) as unknown as BakeRow | null;
        if (before) gone.push(before.file);
        await this.database.models.bakes.upsert(
          {
            collection,
            kind,
            key,
            file,
            bytes: bytes.length,
            summary: JSON.stringify(summary),
            parts: JSON.stringify(parts),
            used_at: this.now().toISOString(),
          },
          { transaction },
        );
        await this.pointTo(collection, ref, transaction);
        gone.push(...(await this.makeRoom(isCurrent, transaction)));
      });
      await this.removeUnnamed(gone);
    });
  }

  /** Takes away the row of a bake whose file is gone or was changed. */
  async drop(file: string): Promise<void> {
    await this.database.queue.exclusive(async () => {
      await this.database.models.bakes.destroy({ where: { file } });
      await this.removeUnnamed([file]);
    });
  }

  /** Deletes what a server that was killed left behind: files that no row names. */
  async sweep(): Promise<void> {
    await this.database.queue.exclusive(async () => {
      const rows = (await this.database.models.bakes.findAll({
        attributes: ['file'],
        raw: true,
      })) as unknown as Pick<BakeRow, 'file'>[];
      const named = new Set(rows.map(({ file }) => file));
      for (const file of await readdir(this.folder))
        if (!named.has(file)) await rm(join(this.folder, file), { force: true });
    });
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
    await this.database.queue.exclusive(() => this.removeUnnamed(files));
  }

  private async subjects(collection: string, transaction?: Transaction): Promise<KeyedRef[]> {
    const rows = (await this.database.models.bakeSubjects.findAll({
      where: { collection },
      raw: true,
      transaction,
    })) as unknown as BakeSubjectRow[];
    return rows.map(({ kind, subject, key }) => ({ kind: kind as BakeKind, subject, key }));
  }

  /** Inside a slot of the write queue only. */
  private async removeUnnamed(files: readonly string[]): Promise<void> {
    for (const file of files) {
      if ((await this.database.models.bakes.count({ where: { file } })) === 0)
        await rm(join(this.folder, file), { force: true });
    }
  }

  private async pointTo(collection: string, { kind, subject, key }: KeyedRef, transaction: Transaction): Promise<void> {
    await this.database.models.bakeSubjects.upsert({ collection, kind, subject, key }, { transaction });
  }

  /** Takes away rows, those that were not used for longest first, until all fit. @returns their files */
  private async makeRoom(
    isCurrent: (kind: string, key: string) => boolean,
    transaction: Transaction,
  ): Promise<string[]> {
    const { bakes } = this.database.models;
    let over = (await bakes.sum('bytes', { transaction })) - this.mostBytes;
    if (!(over > 0)) return [];
    const rows = await this.database.sequelize.query<Omit<BakeRow, 'summary' | 'parts' | 'used_at'>>(
      `SELECT collection, kind, "key", file, bytes FROM bakes WHERE NOT EXISTS (SELECT 1 FROM bake_subjects s
       WHERE s.collection = bakes.collection AND s.kind = bakes.kind AND s."key" = bakes."key") ORDER BY used_at`,
      { type: QueryTypes.SELECT, transaction },
    );
    const gone: string[] = [];
    for (const { collection, kind, key, file, bytes } of rows) {
      if (over <= 0) break;
      if (isCurrent(kind, key)) continue;
      await bakes.destroy({ where: { collection, kind, key }, transaction });
      gone.push(file);
      over -= bytes;
    }
    return gone;
  }

  private keptOf({ kind, key, file, summary, parts }: BakeRow): KeptBake {
    return {
      kind: kind as BakeKind,
      key,
      path: join(this.folder, file),
      summary: JSON.parse(summary) as unknown,
      parts: JSON.parse(parts) as PartHashes,
    };
  }
}

/** One name for a kind and a key. */
export function keptName(kind: BakeKind, key: string): string {
  return `${kind} ${key}`;
}
