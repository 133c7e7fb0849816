import { CoreError, RECORDS_DOCUMENT } from '@stravel/core';
import type { Database } from '../db/database';
import type { DocumentStore } from '../documents/document-store';
import { tablesOf } from '../documents/record-tables';
import type { EditRepository, EditText, HistoryRange } from './edit-repository';

/** What happened to a level. */
export interface LevelHistory {
  /** Newest first, whole edits: they may be about other things too. */
  readonly edits: readonly EditText[];
  /** Strata that it owns, or owned when the edits were made. */
  readonly strata: readonly string[];
  /** Whether there are older ones in the range. */
  readonly hasMore: boolean;
}

/** Tells what happened to a level and the strata that it owns. */
export class LevelHistoryService {
  constructor(
    private readonly database: Database,
    private readonly edits: EditRepository,
    private readonly documents: DocumentStore,
  ) {}

  /** @throws CoreError 'LEVEL_MISSING' for a level that never was */
  async of(collection: string, level: string, range: HistoryRange): Promise<LevelHistory> {
    const tables = await this.database.queue.exclusive(async () =>
      tablesOf((await this.documents.load(collection, RECORDS_DOCUMENT)).state),
    );
    const owned = Object.values(tables.stratum).flatMap(({ id, owner }) => (owner === level ? [id] : []));
    // Strata that are gone since are known from the edits that named their owner, whenever those were made.
    const strata = [...new Set([...owned, ...(await this.edits.strataOwned(collection, level))])].sort();
    const edits = await this.edits.touching(collection, [level, ...strata], range);
    if (edits.length === 0 && !Object.hasOwn(tables.level, level))
      throw new CoreError('LEVEL_MISSING', `history: there is no level ${level}`, { level });
    return { edits, strata, hasMore: edits.length === range.limit };
  }
}
