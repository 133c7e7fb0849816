import type { Transaction } from 'sequelize';
import { CoreError, tryOperations, type Conflict, type EditTrial, type Json, type LoggedEdit } from '@stravel/core';
import type { EditRepository } from '../edits/edit-repository';
import { Stretches } from '../loop/stretches';
import { ChunkedDocument } from './chunked-document';
import type { SnapshotRepository } from './snapshot-repository';

/** Edits to one document after which a new snapshot is written. */
const EDITS_PER_SNAPSHOT = 256;
/** Most records held in memory over all documents before the least used are let go. */
const MAX_RECORDS_HELD = 500000;

/** The documents in memory: snapshot plus log. Called from inside the write queue only, so that nothing changes meanwhile. */
export class DocumentStore {
  /** Least recently used first. */
  private readonly open = new Map<string, ChunkedDocument>();

  constructor(
    private readonly snapshots: SnapshotRepository,
    private readonly edits: EditRepository,
  ) {}

  async load(collection: string, document: string): Promise<ChunkedDocument> {
    const key = `${collection}\u0000${document}`;
    const held = this.open.get(key);
    if (held) {
      this.open.delete(key);
      this.open.set(key, held);
      return held;
    }
    const { sequence, chunks } = await this.snapshots.load(collection, document);
    const stretches = new Stretches();
    const loaded = await ChunkedDocument.fromChunks(document, chunks, stretches);
    for (const edit of await this.edits.ofDocument(collection, document, sequence)) {
      const operations = edit.operations.filter((operation) => operation.document === document);
      const trial = tryOperations(() => loaded.state, operations);
      if (trial.conflicts.length > 0) throw brokenLog(document, edit, trial.conflicts[0]);
      await this.lay(loaded, trial, document, stretches);
      loaded.editsSinceSnapshot += 1;
      await stretches.rest();
    }
    this.open.set(key, loaded);
    this.letGo();
    return loaded;
  }

  /** Puts a trial's outcome into a document. */
  async lay(document: ChunkedDocument, trial: EditTrial, name: string, stretches: Stretches): Promise<void> {
    await stretches.each(trial.touched, ({ document: touched, kind, id, record }) => {
      if (touched === name) document.put(kind, id, record);
    });
  }

  /** Forgets a collection's documents, for example after a write that failed halfway. */
  forget(collection: string): void {
    for (const key of this.open.keys()) {
      if (key.startsWith(`${collection}\u0000`)) this.open.delete(key);
    }
  }

  /** Writes a snapshot when enough edits have gathered, or when `force` is set. */
  async snapshotIfDue(
    transaction: Transaction,
    collection: string,
    document: string,
    sequence: number,
    force = false,
  ): Promise<void> {
    const loaded = await this.load(collection, document);
    if (loaded.editsSinceSnapshot === 0 || (!force && loaded.editsSinceSnapshot < EDITS_PER_SNAPSHOT)) return;
    await this.snapshots.write(transaction, collection, document, sequence, loaded.takeDirtyChunks());
  }

  isSnapshotDue(collection: string, document: string): boolean {
    const held = this.open.get(`${collection}\u0000${document}`);
    return held !== undefined && held.editsSinceSnapshot >= EDITS_PER_SNAPSHOT;
  }

  private letGo(): void {
    let total = 0;
    for (const document of this.open.values()) total += document.size;
    for (const [key, document] of this.open) {
      if (total <= MAX_RECORDS_HELD || this.open.size <= 1) return;
      this.open.delete(key);
      total -= document.size;
    }
  }
}

/** What is told when an edit of the log does not fit what was there before it. */
function brokenLog(document: string, { id, sequence }: LoggedEdit, { operation, current }: Conflict): CoreError {
  const { kind, id: of, field, before } = operation;
  const what = `${kind} ${of}${field === null ? '' : `, ${field}`}`;
  return new CoreError(
    'LOG_BROKEN',
    `document ${document}: edit ${sequence} (${id}) does not fit what was there before it: ${what} is ${told(current)}, the edit found ${told(before)}; ` +
      'restore a backup, and keep this folder so that the cause can be found',
    { document, edit: id, sequence },
  );
}

function told(value: Json): string {
  const text = JSON.stringify(value);
  return text.length > 80 ? `${text.slice(0, 80)}…` : text;
}
