import { randomUUID } from 'node:crypto';
import {
  CoreError,
  RECORDS_DOCUMENT,
  newCollection,
  renamed,
  withoutLevels,
  type CollectionContent,
  type NewCollection,
} from '@stravel/core';
import type { BakeStore } from '../bakes/bake-store';
import type { Database } from '../db/database';
import type { CollectionRow } from '../db/models';
import type { DocumentStore } from '../documents/document-store';
import { tablesOf } from '../documents/record-tables';
import type { EditService } from '../edits/edit-service';
import type { AssetStore } from './asset-store';
import type { CollectionRepository } from './collection-repository';
import type { CollectionService } from './collection-service';

/** How long a collection stays in the bin, days. */
export const BIN_DAYS = 30;
/** The id of the demo collection. */
export const DEMO_COLLECTION = 'cinderbrine';
const DAY_MS = 24 * 60 * 60 * 1000;

/** A collection as the start page lists it. */
export interface ListedCollection {
  readonly id: string;
  readonly name: string;
  /** Levels that are not in the collection's own bin. */
  readonly levels: number;
  /** Time of the last edit, or at which it was made; ISO 8601. */
  readonly changedAt: string;
  /** Stored bytes: content, log, bakes and the meshes of its kits. */
  readonly bytes: number;
  readonly binnedAt: string | null;
}

/** The collections of a data folder: made, copied, renamed, binned and deleted for good. */
export class CollectionKeeping {
  /** The making of the demo while it goes on: two clicks make one. */
  private demo: Promise<string> | undefined;
  private readonly counted = new Map<
    string,
    { readonly sequence: number; readonly levels: number; readonly meshBytes: number }
  >();

  constructor(
    private readonly database: Database,
    private readonly rows: CollectionRepository,
    private readonly collections: CollectionService,
    private readonly documents: DocumentStore,
    private readonly edits: EditService,
    private readonly bakes: BakeStore,
    private readonly assets: AssetStore,
    private readonly now: () => Date,
  ) {}

  async list(): Promise<ListedCollection[]> {
    return Promise.all((await this.rows.all()).map((row) => this.listed(row)));
  }

  async binned(): Promise<ListedCollection[]> {
    return Promise.all((await this.rows.binned()).map((row) => this.listed(row)));
  }

  /** @throws CoreError 'RECORD_INVALID' | 'DEVICE_UNKNOWN' */
  create(wanted: NewCollection): Promise<{ id: string; name: string }> {
    return this.take(newCollection(wanted));
  }

  /** Takes a whole content in as a collection of its own, under a new id. */
  async take(content: CollectionContent): Promise<{ id: string; name: string }> {
    const id = randomUUID();
    await this.collections.take(id, content);
    return { id, name: Object.values(content.records.collection)[0].name };
  }

  /** A copy with a log of its own, under a new name; without levels, all else stays. @throws CoreError 'COLLECTION_MISSING' | 'RECORD_INVALID' */
  async copy(id: string, name: string, withLevels: boolean): Promise<{ id: string; name: string }> {
    const content = renamed(await this.collections.give(id), name);
    return this.take(withLevels ? content : withoutLevels(content));
  }

  /** Renames by an edit, so that open pages and the history know of it. @throws CoreError 'RECORD_INVALID' */
  async rename(id: string, name: string, person: string): Promise<void> {
    const settings = await this.database.queue.exclusive(
      async () => Object.values(tablesOf((await this.documents.load(id, RECORDS_DOCUMENT)).state).collection)[0],
    );
    if (settings.name === name) return;
    const operation = {
      document: RECORDS_DOCUMENT,
      kind: 'collection' as const,
      id: settings.id,
      field: 'name',
      before: settings.name,
      after: name,
    };
    await this.edits.append(id, {
      id: randomUUID(),
      person,
      label: `rename the collection ${settings.name}`,
      operations: [operation],
      undoes: null,
    });
  }

  /** The id of the demo collection, made if there is none, taken out of the bin if it is there. @param started called after it was made */
  async openDemo(make: () => Promise<CollectionContent>, started: (id: string) => Promise<unknown>): Promise<string> {
    this.demo ??= this.findDemo(make, started).finally(() => (this.demo = undefined));
    return this.demo;
  }

  /** Resolves once no demo is being made, whatever became of it. */
  async demoSettled(): Promise<void> {
    await this.demo?.catch(() => undefined);
  }

  /** Puts a collection into the bin; what it holds stays as it is. */
  async bin(id: string): Promise<void> {
    await this.database.queue.write((transaction) => this.rows.bin(transaction, id, this.now().toISOString()));
  }

  /** @throws CoreError 'COLLECTION_MISSING' when it is not in the bin */
  async restoreFromBin(id: string): Promise<void> {
    await this.needBinned(id);
    await this.database.queue.write((transaction) => this.rows.bin(transaction, id, null));
  }

  /** Deletes a collection of the bin for good. @throws CoreError 'COLLECTION_MISSING' when it is not in the bin */
  async remove(id: string): Promise<void> {
    await this.needBinned(id);
    const files = await this.bakes.filesOf(id);
    await this.database.queue.write((transaction) => this.rows.remove(transaction, id));
    this.documents.forget(id);
    this.edits.forget(id);
    this.counted.delete(id);
    await this.bakes.dropUnused(files);
  }

  /** Deletes what has been in the bin for longer than BIN_DAYS. */
  async emptyBin(): Promise<void> {
    const oldest = new Date(this.now().getTime() - BIN_DAYS * DAY_MS).toISOString();
    for (const { id, binned_at: at } of await this.rows.binned()) if (at !== null && at < oldest) await this.remove(id);
  }

  private async findDemo(
    make: () => Promise<CollectionContent>,
    started: (id: string) => Promise<unknown>,
  ): Promise<string> {
    const row = await this.rows.byId(DEMO_COLLECTION);
    if (row?.binned_at) await this.restoreFromBin(DEMO_COLLECTION);
    if (row) return DEMO_COLLECTION;
    await this.collections.take(DEMO_COLLECTION, await make());
    await started(DEMO_COLLECTION);
    return DEMO_COLLECTION;
  }

  private async needBinned(id: string): Promise<void> {
    const row = await this.rows.byId(id);
    if (!row || row.binned_at === null)
      throw new CoreError('COLLECTION_MISSING', `collection: there is none with the id ${id} in the bin`, { id });
  }

  private async listed({
    id,
    name,
    created_at: createdAt,
    binned_at: binnedAt,
  }: CollectionRow): Promise<ListedCollection> {
    const { lastSequence, changedAt, bytes } = await this.rows.use(id);
    const counted = this.counted.get(id);
    const { levels, meshBytes } = counted?.sequence === lastSequence ? counted : await this.count(id, lastSequence);
    return { id, name, levels, changedAt: changedAt ?? createdAt, bytes: bytes + meshBytes, binnedAt };
  }

  private async count(id: string, sequence: number): Promise<{ levels: number; meshBytes: number }> {
    const tables = await this.database.queue.exclusive(async () =>
      tablesOf((await this.documents.load(id, RECORDS_DOCUMENT)).state),
    );
    const levels = Object.values(tables.level).filter(({ binned }) => binned === null).length;
    const meshBytes = Object.values(tables.kit).reduce((sum, { mesh }) => sum + this.assets.bytesOf(mesh), 0);
    this.counted.set(id, { sequence, levels, meshBytes });
    return { levels, meshBytes };
  }
}
