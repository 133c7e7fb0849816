import { Injectable, inject, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import {
  isRecordKind,
  isItemKind,
  LaidEdits,
  RECORDS_DOCUMENT,
  completeKeys,
  decodeChunk,
  emptyRecordTables,
  takenKeys,
  type EditableKind,
  type JsonRecord,
  type LoggedEdit,
  type Operation,
  type ShownRecord,
  type WaitingOperations,
  recordInTables,
  plainRecordIfAny,
} from '@stravel/core';
import { ApiClient } from '../api/api-client';
import { recordsActions, recordsFeature } from './records/records-store';
import { StratumDocument } from './stratum-document';

/** How far a document is loaded. */
interface Loading {
  /** Last edit of the log that is in it. */
  sequence: number;
  /** Edits that came while it was loading. */
  early: LoggedEdit[] | undefined;
}

/** What is known of a record that an edit is about. */
export interface RecordFate {
  readonly stands: boolean;
  /** How it was before it was deleted under a waiting edit. */
  readonly last: JsonRecord | undefined;
}

/** Chunks are taken for so long before other work of the page goes on. */
const SLICE_MS = 12;
/** Snapshots that changed under a load are read anew, this often. */
const MAX_LOAD_TRIES = 5;

/** The open documents of the collection: the records in the store, the strata in columns. */
@Injectable({ providedIn: 'root' })
export class DocumentRegistry {
  private readonly api = inject(ApiClient);
  private readonly store = inject(Store);
  private readonly strata = new Map<string, StratumDocument>();
  private readonly loads = new Map<string, Promise<StratumDocument>>();
  private readonly loading = new Map<string, Loading>();
  private readonly tables = this.store.selectSignal(recordsFeature.selectTables);
  private collection = '';

  /** Grows when any open stratum changed; for views that count. */
  readonly contentVersion = signal(0);
  /** What waits, laid over what the log has. */
  private readonly laid = new LaidEdits({
    isOpen: (document) => (document === RECORDS_DOCUMENT ? this.isOpen : this.strata.has(document)),
    read: (document, kind, id) => this.read(document, kind, id),
    write: (records) => this.write(records),
  });
  private isOpen = false;
  /** Whether what is written is a part of more: views count again when all of it is there. */
  private isPart = false;

  /** Opens a collection's records. @param waiting edits that are laid over it @returns the last edit that is in them */
  async open(collection: string, waiting: readonly WaitingOperations[]): Promise<number> {
    this.collection = collection;
    this.isOpen = false;
    this.laid.clear();
    waiting.forEach((edit) => this.laid.lay(edit));
    this.strata.clear();
    this.loads.clear();
    this.loading.clear();
    this.store.dispatch(recordsActions.collectionOpened());
    let tables = emptyRecordTables();
    const take = (kind: string, bytes: Uint8Array): void => {
      if (!isRecordKind(kind)) throw unknownKind(RECORDS_DOCUMENT, kind);
      const table = tables[kind] as Record<string, unknown>;
      for (const record of decodeChunk(kind, bytes)) table[record['id'] as string] = record;
    };
    const { tail, sequence } = await this.loadDocument(RECORDS_DOCUMENT, take, () => (tables = emptyRecordTables()));
    this.store.dispatch(recordsActions.loaded({ tables }));
    this.store.dispatch(recordsActions.operationsApplied({ operations: tail }));
    this.isOpen = true;
    this.laid.opened(RECORDS_DOCUMENT);
    return sequence;
  }

  /** A stratum's content, loaded chunk by chunk the first time. */
  stratum(id: string): Promise<StratumDocument> {
    let load = this.loads.get(id);
    if (!load) {
      load = this.loadStratum(id);
      this.loads.set(id, load);
      load.catch(() => this.loads.delete(id));
    }
    return load;
  }

  /** A stratum that is open, undefined otherwise. */
  openStratum(id: string): StratumDocument | undefined {
    return this.strata.get(id);
  }

  /** Operations whose new levels and kits all have keys, as the server would give them. */
  complete(operations: readonly Operation[]): readonly Operation[] {
    const tables = this.tables();
    return completeKeys(
      operations,
      () => takenKeys(tables),
      (kind) => Object.keys(tables[kind]).length,
    );
  }

  /** Lays a new edit of this page over what is shown. */
  lay(edit: WaitingOperations): void {
    this.laid.lay(edit);
  }

  /**
   * Begins to lay a new edit of this page over what is shown, so many operations a step; see `contentChanged`.
   * @returns what does a step, and tells whether there was one left
   */
  layInSteps(edit: WaitingOperations, operationsPerStep: number): () => boolean {
    const steps = this.laid.layInSteps(edit, operationsPerStep);
    return () => {
      this.isPart = true;
      try {
        return steps.next().done !== true;
      } finally {
        this.isPart = false;
      }
    };
  }

  /** Lays the rest of what is being laid, at once. */
  finishLaying(): void {
    this.laid.finish();
  }

  /** Has views that count look again. */
  contentChanged(): void {
    this.contentVersion.update((v) => v + 1);
  }

  /** Takes a waiting edit away. */
  drop(id: string): void {
    this.laid.drop(id);
  }

  /** What is known of the record that an operation is about: that it stands, how it was before it was deleted, or nothing. */
  fate({ document, kind, id }: Operation): RecordFate {
    return { stands: this.read(document, kind, id) !== undefined, last: this.laid.lastKnown(document, kind, id) };
  }

  /** Takes in an edit of the log; what waits is laid over it anew. */
  applyLogged(edit: LoggedEdit): void {
    const due = new Set<string>();
    for (const document of new Set(edit.operations.map((operation) => operation.document))) {
      const state = this.loading.get(document);
      if (!state) continue;
      if (state.early) {
        state.early.push(edit);
        continue;
      }
      if (edit.sequence <= state.sequence) continue;
      state.sequence = edit.sequence;
      due.add(document);
    }
    this.laid.log(
      edit.id,
      edit.operations.filter(({ document }) => due.has(document)),
    );
  }

  private read(document: string, kind: EditableKind, id: string): JsonRecord | undefined {
    if (document === RECORDS_DOCUMENT) return recordInTables(this.tables(), kind, id);
    return isItemKind(kind) ? plainRecordIfAny(this.strata.get(document)?.item(kind, id)) : undefined;
  }

  private write(records: readonly ShownRecord[]): void {
    const byDocument = new Map<string, ShownRecord[]>();
    for (const one of records) {
      const list = byDocument.get(one.document);
      if (list) list.push(one);
      else byDocument.set(one.document, [one]);
    }
    for (const [document, list] of byDocument) {
      if (document === RECORDS_DOCUMENT) this.store.dispatch(recordsActions.recordsPut({ records: list }));
      else this.strata.get(document)?.putAll(list);
    }
    if (!this.isPart) this.contentChanged();
  }

  private async loadStratum(id: string): Promise<StratumDocument> {
    let document = new StratumDocument(id);
    const { tail } = await this.loadDocument(
      id,
      (kind, bytes) => {
        if (!isItemKind(kind)) throw unknownKind(id, kind);
        document.addChunk(kind, bytes);
      },
      () => (document = new StratumDocument(id)),
    );
    document.apply(tail);
    this.strata.set(id, document);
    this.laid.opened(id);
    this.contentChanged();
    return document;
  }

  private async loadDocument(
    document: string,
    take: (kind: string, bytes: Uint8Array) => void,
    startOver: () => void,
  ): Promise<{ tail: Operation[]; sequence: number }> {
    const state: Loading = { sequence: 0, early: [] };
    this.loading.set(document, state);
    for (let attempt = 1; ; attempt++) {
      const index = await this.api.snapshot(this.collection, document);
      const later = this.api.editsOfDocument(this.collection, document, index.sequence);
      // Awaited below, unless the snapshot is asked for anew.
      later.catch(() => undefined);
      const whole = await this.takeChunks(document, index, take);
      if (!whole) {
        if (attempt === MAX_LOAD_TRIES)
          throw new Error(`The stratum ${document} changes faster than it can be loaded.`);
        startOver();
        continue;
      }
      const edits = await later;
      const sequence = edits.at(-1)?.sequence ?? index.sequence;
      const early = (state.early ?? []).filter((edit) => edit.sequence > sequence);
      state.early = undefined;
      state.sequence = early.at(-1)?.sequence ?? sequence;
      const tail = [...edits, ...early].flatMap((edit) =>
        edit.operations.filter((operation) => operation.document === document),
      );
      return { tail, sequence: state.sequence };
    }
  }

  /** False when the snapshot was replaced meanwhile. */
  private async takeChunks(
    document: string,
    index: Awaited<ReturnType<ApiClient['snapshot']>>,
    take: (kind: string, bytes: Uint8Array) => void,
  ): Promise<boolean> {
    // Asked for together, taken in order.
    const answers = index.chunks.map(async ({ kind, chunk }) => ({
      kind,
      ...(await this.api.chunk(this.collection, document, kind, chunk)),
    }));
    for (const answer of answers) answer.catch(() => undefined);
    let begun = performance.now();
    for (const answer of answers) {
      const { kind, sequence, bytes } = await answer;
      if (sequence !== index.sequence) return false;
      take(kind, bytes);
      if (performance.now() - begun < SLICE_MS) continue;
      // Other work of the page goes first.
      await new Promise((resolve) => setTimeout(resolve));
      begun = performance.now();
    }
    return true;
  }
}

/** A page that leaves out what it does not know would show less than there is. */
function unknownKind(document: string, kind: string): Error {
  return new Error(
    `The document ${document} contains objects of a kind that this page does not know: ${kind}. Reload it.`,
  );
}
