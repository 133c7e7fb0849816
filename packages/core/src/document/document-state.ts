import type { EditableKind } from '../model/records';
import { applyOperation, valueAt, type JsonRecord } from './apply-operation';
import { equalJson } from './equal-json';
import type { Conflict, Operation } from './operation';

/** The records of one document by kind and id. Mutable: the side that owns it applies edits in place. */
export type DocumentState = Map<EditableKind, Map<string, JsonRecord>>;

export function recordIn(state: DocumentState, kind: EditableKind, id: string): JsonRecord | undefined {
  return state.get(kind)?.get(id);
}

/** Puts a record, or takes it away when undefined. */
export function putRecord(state: DocumentState, kind: EditableKind, id: string, record: JsonRecord | undefined): void {
  let table = state.get(kind);
  if (!table) {
    table = new Map();
    state.set(kind, table);
  }
  if (record) table.set(id, record);
  else table.delete(id);
}

/** The state of an edit laid over documents without touching them. */
export interface EditTrial {
  readonly conflicts: readonly Conflict[];
  /** Last state of every record that the edit touches; undefined for removed. */
  readonly touched: readonly {
    readonly document: string;
    readonly kind: EditableKind;
    readonly id: string;
    readonly record: JsonRecord | undefined;
  }[];
}

/**
 * Runs an edit's operations against what stands, without changing it. An operation whose `before` does not hold is a
 * conflict; the others still run, so that all conflicts are told at once.
 * @param documents gives the state of a document by name
 */
export function tryOperations(documents: (name: string) => DocumentState, operations: readonly Operation[]): EditTrial {
  const run = new TrialRun(documents);
  for (const operation of operations) run.take(operation);
  return run.trial();
}

/** As `tryOperations`, operation by operation, for who must not do very many at one go. */
export class TrialRun {
  private readonly conflicts: Conflict[] = [];
  private readonly overlay = new Map<string, EditTrial['touched'][number]>();
  private index = 0;

  constructor(private readonly documents: (name: string) => DocumentState) {}

  take(operation: Operation): void {
    const index = this.index++;
    const key = `${operation.document}\u0000${operation.kind}\u0000${operation.id}`;
    const laid = this.overlay.get(key);
    const record = laid ? laid.record : recordIn(this.documents(operation.document), operation.kind, operation.id);
    const current = valueAt(record, operation.field);
    if (!equalJson(current, operation.before) || (operation.field !== null && !record)) {
      this.conflicts.push({ index, operation, current });
      return;
    }
    this.overlay.set(key, {
      document: operation.document,
      kind: operation.kind,
      id: operation.id,
      record: applyOperation(record, operation),
    });
  }

  trial(): EditTrial {
    return { conflicts: this.conflicts, touched: [...this.overlay.values()] };
  }
}

/** Applies operations that are known to hold. */
export function applyOperations(state: DocumentState, operations: readonly Operation[]): void {
  for (const operation of operations) {
    putRecord(
      state,
      operation.kind,
      operation.id,
      applyOperation(recordIn(state, operation.kind, operation.id), operation),
    );
  }
}
