import { randomUUID } from 'node:crypto';
import {
  CoreError,
  MAX_OPERATIONS,
  RECORDS_DOCUMENT,
  restoreOperations,
  type CollectionContent,
  type DocumentState,
  type LooseEndNotes,
  type RestorePlan,
} from '@stravel/core';
import type { Database } from '../db/database';
import type { DocumentStore } from '../documents/document-store';
import type { EditService } from '../edits/edit-service';
import { Stretches } from '../loop/stretches';
import type { AssetStore } from './asset-store';
import type { ArchiveContent } from './read-archive';

/** What restoring an archive into a collection would change. */
export interface RestorePreview {
  /** Number of the last edit of the log that was looked at. */
  readonly edit: number;
  readonly operations: number;
  readonly changes: RestorePlan['changes'];
}

/** The same before it is done, with what in the archive points at nothing. */
export interface ArchivePreview extends RestorePreview {
  readonly loose: LooseEndNotes;
}

/** Makes a collection hold what an archive holds, by one edit that is undone as any other. */
export class CollectionRestoring {
  constructor(
    private readonly database: Database,
    private readonly documents: DocumentStore,
    private readonly edits: EditService,
    private readonly assets: AssetStore,
  ) {}

  async preview(collection: string, { content, loose }: ArchiveContent): Promise<ArchivePreview> {
    const { edit, operations, changes } = await this.plan(collection, content);
    return { edit, operations: operations.length, changes, loose };
  }

  /**
   * @param edit number that the preview named
   * @throws CoreError 'RESTORE_CHANGED' when the log has gone on since, 'RESTORE_TOO_LARGE', or as an edit does
   */
  async restore(
    collection: string,
    content: CollectionContent,
    { edit, person }: { readonly edit: number; readonly person: string },
  ): Promise<RestorePreview> {
    const plan = await this.plan(collection, content);
    if (plan.edit !== edit)
      throw new CoreError(
        'RESTORE_CHANGED',
        `restore: the collection was changed since the preview (edit ${plan.edit}, not ${edit}); look at it again`,
        { edit: plan.edit },
      );
    const { operations, changes } = plan;
    for (const bytes of content.assets.values()) await this.assets.put(bytes);
    if (operations.length > 0)
      await this.edits.append(collection, {
        id: randomUUID(),
        person,
        label: 'restore an archive',
        operations,
        undoes: null,
      });
    return { edit, operations: operations.length, changes };
  }

  private async plan(collection: string, content: CollectionContent): Promise<RestorePlan & { readonly edit: number }> {
    return this.database.queue.exclusive(async () => {
      const none: DocumentState = new Map();
      const states = new Map<string, DocumentState>();
      for (const document of [RECORDS_DOCUMENT, ...content.strata.keys()])
        states.set(document, (await this.documents.load(collection, document)).state);
      const plan = await new Stretches().finish(restoreOperations((document) => states.get(document) ?? none, content));
      if (plan.operations.length > MAX_OPERATIONS) {
        const message = `restore: ${plan.operations.length} changes are more than one edit takes (${MAX_OPERATIONS}); restore the archive as a collection of its own`;
        throw new CoreError('RESTORE_TOO_LARGE', message, { operations: plan.operations.length });
      }
      return { ...plan, edit: await this.edits.lastSequence(collection) };
    });
  }
}
