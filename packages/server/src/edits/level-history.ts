import { CoreError, RECORDS_DOCUMENT, strataOwnedIn, type LoggedEdit } from '@stravel/core';
import type { Database } from '../db/database';
import type { DocumentStore } from '../documents/document-store';
import { tablesOf } from '../documents/record-tables';
import type { EditRepository, HistoryRange } from './edit-repository';

/** What happened to a level. */
export interface LevelHistory {
  /** Newest first, whole edits: they may be about other things too. */
  readonly edits: readonly LoggedEdit[];
  /** Strata that it owns, or owned when the edits were made. */
  readonly strata: readonly string[];
  /** Whether there are older ones in the range. */
  readonly hasMore: boolean;
}

/** Most edits that are looked through for strata which a level once owned. */
const MOST_OWNING = 2000;

/** Tells what happened to a level and the strata that it owns. */
export class LevelHistoryService {
  constructor(
    private readonly database: Database,
    private readonly edits: EditRepository,
    private readonly documents: DocumentStore,
  ) {}

  /** @throws CoreError 'LEVEL_MISSING' for a level that never was */
  async of(collection: string, level: string, range: HistoryRange): Promise<LevelHistory> {
    const tables = await this.database.queue.exclusive(async () => tablesOf((await this.documents.load(collection, RECORDS_DOCUMENT)).state));
    const owned = Object.values(tables.stratum).flatMap(({ id, owner }) => (owner === level ? [id] : []));
    // Strata that are gone since are known from the edits that name their owner, whenever those were made.
    const owning = await this.edits.mentioning(collection, [level], { below: Number.MAX_SAFE_INTEGER, after: 0, limit: MOST_OWNING }, '"stratum"');
    const strata = [...new Set([...owned, ...strataOwnedIn(owning, level)])].sort();
    const known = new Set([level, ...strata]);
    const found = await this.edits.mentioning(collection, [...known], range);
    if (found.length === 0 && !Object.hasOwn(tables.level, level)) throw new CoreError('LEVEL_MISSING', `history: there is no level ${level}`, { level });
    const edits = found.filter(({ operations }) => operations.some(({ document, id }) => known.has(document === RECORDS_DOCUMENT ? id : document)));
    return { edits, strata, hasMore: found.length === range.limit };
  }
}
