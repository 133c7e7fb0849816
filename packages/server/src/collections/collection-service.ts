import {
  CoreError,
  ITEM_KINDS,
  RECORDS_DOCUMENT,
  pictureNames,
  type CollectionContent,
  type ItemKind,
  type JsonRecord,
  type StratumContent,
  RECORD_KINDS,
  plainRecord,
  contentOfKinds,
  storedRecord,
  type Item,
  type RecordKind,
  type RecordOfKind,
} from '@stravel/core';
import type { Database } from '../db/database';
import { ChunkedDocument } from '../documents/chunked-document';
import { sortedById } from '../loop/sorted-by-id';
import { Stretches } from '../loop/stretches';
import type { DocumentStore } from '../documents/document-store';
import { tablesOf } from '../documents/record-tables';
import type { SnapshotRepository } from '../documents/snapshot-repository';
import type { EditRepository } from '../edits/edit-repository';
import type { AssetStore } from './asset-store';
import type { CollectionRepository } from './collection-repository';

/** A collection with the number of the last edit that is in it. */
export interface NumberedContent<Content = CollectionContent> {
  readonly content: Content;
  readonly edit: number;
}

/** Whole collections: taking one in, giving one out. */
export class CollectionService {
  constructor(
    private readonly database: Database,
    private readonly collections: CollectionRepository,
    private readonly documents: DocumentStore,
    private readonly snapshots: SnapshotRepository,
    private readonly assets: AssetStore,
    private readonly edits: Pick<EditRepository, 'lastSequence'>,
    private readonly now: () => Date,
  ) {}

  /**
   * Writes a checked collection as new, all of it or nothing. Its log starts empty.
   * @throws CoreError 'COLLECTION_EXISTS'
   */
  async take(id: string, content: CollectionContent): Promise<void> {
    for (const bytes of content.assets.values()) await this.assets.put(bytes);
    await this.database.queue.write(async (transaction) => {
      if (await this.collections.byId(id)) {
        throw new CoreError('COLLECTION_EXISTS', `collection: the id ${id} is taken`, { id });
      }
      const name = Object.values(content.records.collection)[0].name;
      await this.collections.create(transaction, { id, name, created_at: this.now().toISOString(), binned_at: null });
      const stretches = new Stretches();
      const records = new ChunkedDocument();
      for (const kind of RECORD_KINDS) {
        const table: Readonly<Record<string, RecordOfKind[RecordKind]>> = content.records[kind];
        await stretches.each(Object.values(table), (record) => records.put(kind, record.id, plainRecord(record)));
      }
      await this.snapshots.write(transaction, id, RECORDS_DOCUMENT, 0, records.takeDirtyChunks());
      for (const [stratum, items] of content.strata) {
        const document = new ChunkedDocument();
        for (const kind of ITEM_KINDS)
          await stretches.each<Item>(items[kind], (item) => document.put(kind, item.id, plainRecord(item)));
        await this.snapshots.write(transaction, id, stratum, 0, document.takeDirtyChunks());
      }
    });
  }

  /** Everything of a collection at one moment of its log. @throws CoreError 'COLLECTION_MISSING' */
  async give(id: string): Promise<CollectionContent> {
    return (await this.giveNumbered(id)).content;
  }

  /** As `give`, with that moment's number. @throws CoreError 'COLLECTION_MISSING' */
  async giveNumbered(id: string): Promise<NumberedContent> {
    return this.at(id, async ({ records, strata }) => {
      const assets = new Map<string, Uint8Array>();
      for (const kit of Object.values(records.kit)) assets.set(kit.mesh, await this.assets.get(kit.mesh));
      for (const name of pictureNames(records))
        if (this.assets.has(name)) assets.set(name, await this.assets.get(name));
      return { records, strata, assets };
    });
  }

  /** As `giveNumbered`, without meshes and pictures: those never change, and may be long. @throws CoreError 'COLLECTION_MISSING' */
  async giveWithoutAssets(id: string): Promise<NumberedContent<Omit<CollectionContent, 'assets'>>> {
    return this.at(id, (content) => Promise.resolve(content));
  }

  private async at<Content>(
    id: string,
    of: (content: Omit<CollectionContent, 'assets'>) => Promise<Content>,
  ): Promise<NumberedContent<Content>> {
    if (!(await this.collections.exists(id))) {
      throw new CoreError('COLLECTION_MISSING', `collection: there is none with the id ${id}`, { id });
    }
    return this.database.queue.exclusive(async () => {
      const records = await this.documents.load(id, RECORDS_DOCUMENT);
      const tables = tablesOf(records.state);
      const strata: CollectionContent['strata'] = new Map();
      for (const stratum of Object.keys(tables.stratum).sort()) {
        strata.set(stratum, await contentOf(await this.documents.load(id, stratum)));
      }
      return { content: await of({ records: tables, strata }), edit: await this.edits.lastSequence(id) };
    });
  }
}

/** The items of a loaded stratum, in order of id. */
export async function contentOf({ state }: ChunkedDocument): Promise<StratumContent> {
  const stretches = new Stretches();
  const lists = new Map<ItemKind, readonly JsonRecord[]>();
  for (const kind of ITEM_KINDS) lists.set(kind, await sortedById(state.get(kind)?.values() ?? [], stretches));
  return contentOfKinds((kind) => (lists.get(kind) ?? []).map((record) => storedRecord(kind, record)));
}
