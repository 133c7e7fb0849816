import { Injectable, inject, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import {
  ITEM_KINDS,
  RECORDS_DOCUMENT,
  completeKeys,
  decodeChunk,
  emptyRecordTables,
  isEditableKind,
  takenKeys,
  type ItemKind,
  type LoggedEdit,
  type Operation,
  type RecordKind,
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

/** Snapshots that changed under a load are read anew, this often. */
const MOST_LOAD_TRIES = 5;

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
  /** Gives what waits in the outbox for a document, to be laid over what the server has. */
  pendingOperations: (document: string) => readonly Operation[] = () => [];

  /** Opens a collection's records. @returns the last edit that is in them */
  async open(collection: string): Promise<number> {
    this.collection = collection;
    this.strata.clear();
    this.loads.clear();
    this.loading.clear();
    this.store.dispatch(recordsActions.collectionOpened());
    let tables = emptyRecordTables();
    const take = (kind: string, bytes: Uint8Array): void => {
      if (!isEditableKind(kind)) return;
      const table = tables[kind as RecordKind] as Record<string, unknown>;
      for (const record of decodeChunk(kind, bytes)) table[record['id'] as string] = record;
    };
    const { tail, sequence } = await this.loadDocument(RECORDS_DOCUMENT, take, () => (tables = emptyRecordTables()));
    this.store.dispatch(recordsActions.loaded({ tables }));
    this.store.dispatch(recordsActions.operationsApplied({ operations: [...tail, ...this.pendingOperations(RECORDS_DOCUMENT)] }));
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

  /** Applies operations of this page at once. */
  applyLocal(operations: readonly Operation[]): void {
    if (operations.some((operation) => operation.document === RECORDS_DOCUMENT)) {
      this.store.dispatch(recordsActions.operationsApplied({ operations }));
    }
    for (const document of new Set(operations.map((operation) => operation.document))) {
      this.strata.get(document)?.apply(operations.filter((operation) => operation.document === document));
    }
    this.contentVersion.update((v) => v + 1);
  }

  /** Applies an edit of the log, leaving out operations that `skip` names (they wait here with values of their own). */
  applyLogged(edit: LoggedEdit, skip: (operation: Operation) => boolean): void {
    for (const document of new Set(edit.operations.map((operation) => operation.document))) {
      const state = this.loading.get(document);
      if (!state) continue;
      if (state.early) {
        state.early.push(edit);
        continue;
      }
      if (edit.sequence <= state.sequence) continue;
      state.sequence = edit.sequence;
      this.applyLocal(edit.operations.filter((operation) => operation.document === document && !skip(operation)));
    }
  }

  private async loadStratum(id: string): Promise<StratumDocument> {
    let document = new StratumDocument(id);
    const { tail } = await this.loadDocument(
      id,
      (kind, bytes) => {
        if ((ITEM_KINDS as readonly string[]).includes(kind)) document.addChunk(kind as ItemKind, bytes);
      },
      () => (document = new StratumDocument(id)),
    );
    document.apply([...tail, ...this.pendingOperations(id)]);
    this.strata.set(id, document);
    this.contentVersion.update((v) => v + 1);
    return document;
  }

  private async loadDocument(document: string, take: (kind: string, bytes: Uint8Array) => void, startOver: () => void): Promise<{ tail: Operation[]; sequence: number }> {
    const state: Loading = { sequence: 0, early: [] };
    this.loading.set(document, state);
    for (let attempt = 1; ; attempt++) {
      const index = await this.api.snapshot(this.collection, document);
      const whole = await this.takeChunks(document, index, take);
      if (!whole) {
        if (attempt === MOST_LOAD_TRIES) throw new Error(`The stratum ${document} changes faster than it can be loaded.`);
        startOver();
        continue;
      }
      const edits = await this.api.editsOfDocument(this.collection, document, index.sequence);
      const sequence = edits.at(-1)?.sequence ?? index.sequence;
      const early = (state.early ?? []).filter((edit) => edit.sequence > sequence);
      state.early = undefined;
      state.sequence = early.at(-1)?.sequence ?? sequence;
      const tail = [...edits, ...early].flatMap((edit) => edit.operations.filter((operation) => operation.document === document));
      return { tail, sequence: state.sequence };
    }
  }

  /** False when the snapshot was replaced meanwhile. */
  private async takeChunks(document: string, index: Awaited<ReturnType<ApiClient['snapshot']>>, take: (kind: string, bytes: Uint8Array) => void): Promise<boolean> {
    // Asked for together, taken in order.
    const answers = index.chunks.map(async ({ kind, chunk }) => ({ kind, ...(await this.api.chunk(this.collection, document, kind, chunk)) }));
    for (const answer of answers) answer.catch(() => undefined);
    for (const answer of answers) {
      const { kind, sequence, bytes } = await answer;
      if (sequence !== index.sequence) return false;
      take(kind, bytes);
      // Other work of the page goes first between two chunks.
      await new Promise((resolve) => setTimeout(resolve));
    }
    return true;
  }
}
