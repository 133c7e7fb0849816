import type { EditableKind } from '../model/records';
import { applyOperation, type JsonRecord } from './apply-operation';
import { equalJson } from './equal-json';
import type { Operation } from './operation';

/** A record as it is to be shown; undefined for one that is not there. */
export interface ShownRecord {
  readonly document: string;
  readonly kind: EditableKind;
  readonly id: string;
  readonly record: JsonRecord | undefined;
}

/** The documents that are open where edits are laid. */
export interface LaidDocuments {
  isOpen(document: string): boolean;
  read(document: string, kind: EditableKind, id: string): JsonRecord | undefined;
  /** Puts or takes away records, all at once. */
  write(records: readonly ShownRecord[]): void;
}

/** An edit that is not in the log yet, as far as is known here. */
export interface WaitingOperations {
  readonly id: string;
  readonly operations: readonly Operation[];
}

interface Under {
  readonly document: string;
  readonly kind: EditableKind;
  readonly id: string;
  /** As the log has it. */
  record: JsonRecord | undefined;
  /** As the log last had it, when it has been deleted since. */
  last: JsonRecord | undefined;
}

/**
 * What the log acknowledged with the waiting edits laid over it. The acknowledged state of every record that a waiting edit
 * touches is kept apart; whatever comes, what is shown is that state with all waiting edits laid over it anew, in order. An
 * operation on a record that is not there lays nothing.
 */
export class LaidEdits {
  private waiting: WaitingOperations[] = [];
  private readonly under = new Map<string, Under>();
  /** The laying of the edit on top, while it goes on. */
  private underWay: Iterator<void> | undefined;

  constructor(private readonly documents: LaidDocuments) {}

  /** Lays a new edit on top. */
  lay(edit: WaitingOperations): void {
    this.layInSteps(edit);
    this.finish();
  }

  /**
   * Begins to lay a new edit on top, so many operations a step. Whatever else is done here finishes it first.
   * @returns the steps; none is left once it was finished elsewhere
   */
  layInSteps(edit: WaitingOperations, operationsPerStep = Infinity): Iterator<void> {
    this.finish();
    this.waiting.push(edit);
    this.underWay = this.steps(edit.operations, operationsPerStep);
    return this.underWay;
  }

  /** Lays the rest of what is being laid, at once. */
  finish(): void {
    const { underWay } = this;
    this.underWay = undefined;
    while (underWay && underWay.next().done !== true);
  }

  /** Takes a waiting edit away: what is under it and the other edits are shown. */
  drop(id: string): void {
    this.finish();
    const dropped = this.waiting.find((edit) => edit.id === id);
    if (!dropped) return;
    this.waiting = this.waiting.filter((edit) => edit !== dropped);
    this.show(new Set(keysOf(dropped.operations)));
  }

  /**
   * Takes in operations of the log.
   * @param operations those of documents that do not have them yet
   * @param id of the edit; one that waits here under this id no longer does
   */
  log(id: string, operations: readonly Operation[]): void {
    this.finish();
    if (this.acknowledge(id, operations)) return;
    const changed = new Set<string>();
    const plain = new Map<string, ShownRecord>();
    for (const operation of operations) {
      const { document, kind, id: of } = operation;
      if (!this.documents.isOpen(document)) continue;
      const key = keyOf(operation);
      const under = this.under.get(key);
      if (under) {
        const record = laid(under.record, operation);
        if (!record) under.last = under.record ?? under.last;
        under.record = record;
        changed.add(key);
      } else {
        const known = plain.get(key);
        plain.set(key, {
          document,
          kind,
          id: of,
          record: laid(known ? known.record : this.documents.read(document, kind, of), operation),
        });
      }
    }
    if (plain.size > 0) this.documents.write([...plain.values()]);
    const own = this.waiting.find((edit) => edit.id === id);
    if (own) {
      this.waiting = this.waiting.filter((edit) => edit !== own);
      for (const key of keysOf(own.operations)) changed.add(key);
    }
    this.show(changed);
  }

  /**
   * Takes in an edit that is shown already: the one that waits first, as it was laid. Nothing of what is shown changes then, however
   * many records it touches.
   * @returns whether it was that one
   */
  private acknowledge(id: string, operations: readonly Operation[]): boolean {
    const [own, ...others] = this.waiting;
    if (own?.id !== id) return false;
    // Where not all of its documents are open, what is shown of it is told the long way.
    if (own.operations.length !== operations.length) return false;
    const all = keysOf(own.operations);
    const isSame = (operation: Operation, i: number): boolean =>
      all[i] === keyOf(operation) &&
      own.operations[i].field === operation.field &&
      equalJson(own.operations[i].after, operation.after) &&
      this.under.has(all[i]);
    if (!operations.every(isSame)) return false;
    this.waiting = others;
    const stillTouched = new Set(others.flatMap((edit) => keysOf(edit.operations)));
    operations.forEach((operation, i) => {
      const under = this.under.get(all[i]);
      if (!under) return;
      if (!stillTouched.has(all[i])) {
        this.under.delete(all[i]);
        return;
      }
      const record = laid(under.record, operation);
      if (!record) under.last = under.record ?? under.last;
      under.record = record;
    });
    return true;
  }

  /** A document was opened with what the log has: what waits for it is laid over it. */
  opened(document: string): void {
    this.finish();
    for (const [key, under] of this.under) if (under.document === document) this.under.delete(key);
    const operations = this.waiting.flatMap((edit) =>
      edit.operations.filter((operation) => operation.document === document),
    );
    this.show(this.keep(operations));
  }

  /** Forgets everything, for another collection. */
  clear(): void {
    this.finish();
    this.waiting = [];
    this.under.clear();
  }

  /** A record as the log last had it before it was deleted under a waiting edit; undefined when that is not known. */
  lastKnown(document: string, kind: EditableKind, id: string): JsonRecord | undefined {
    return this.under.get(`${document}\u0000${kind}\u0000${id}`)?.last;
  }

  /** What is shown is the log with all that waits on it: the new edit is laid over that. */
  private *steps(operations: readonly Operation[], perStep: number): Generator<void> {
    const all = keysOf(operations);
    for (let from = 0; from < operations.length; from += perStep) {
      const shown = new Map<string, ShownRecord>();
      const to = Math.min(operations.length, from + perStep);
      for (let i = from; i < to; i++) {
        const { document, kind, id } = operations[i];
        if (!this.documents.isOpen(document)) continue;
        const key = all[i];
        const before = shown.has(key) ? shown.get(key)?.record : this.documents.read(document, kind, id);
        if (!this.under.has(key)) this.under.set(key, { document, kind, id, record: before, last: undefined });
        shown.set(key, { document, kind, id, record: laid(before, operations[i]) });
      }
      if (shown.size > 0) this.documents.write([...shown.values()]);
      yield;
    }
    this.underWay = undefined;
  }

  /** Keeps what is acknowledged of the records that operations touch. */
  private keep(operations: readonly Operation[]): Set<string> {
    const kept = new Set<string>();
    const all = keysOf(operations);
    for (const [i, { document, kind, id }] of operations.entries()) {
      if (!this.documents.isOpen(document)) continue;
      const key = all[i];
      kept.add(key);
      if (!this.under.has(key))
        this.under.set(key, { document, kind, id, record: this.documents.read(document, kind, id), last: undefined });
    }
    return kept;
  }

  /** Shows records anew. Those that nothing waits for are no longer kept apart. */
  private show(keys: ReadonlySet<string>): void {
    if (keys.size === 0) return;
    const shown = new Map<string, JsonRecord | undefined>();
    const touched = new Set<string>();
    for (const key of keys) {
      const under = this.under.get(key);
      if (under) shown.set(key, under.record);
    }
    for (const { operations } of this.waiting) {
      const all = keysOf(operations);
      for (const [i, operation] of operations.entries()) {
        const key = all[i];
        if (!shown.has(key)) continue;
        touched.add(key);
        shown.set(key, laid(shown.get(key), operation));
      }
    }
    const records: ShownRecord[] = [];
    for (const [key, record] of shown) {
      const { document, kind, id } = this.under.get(key) as Under;
      if (this.documents.isOpen(document)) records.push({ document, kind, id, record });
      if (!touched.has(key)) this.under.delete(key);
    }
    if (records.length > 0) this.documents.write(records);
  }
}

function laid(record: JsonRecord | undefined, operation: Operation): JsonRecord | undefined {
  return operation.field !== null && !record ? undefined : applyOperation(record, operation);
}

const keys = new WeakMap<readonly Operation[], readonly string[]>();

/** Key of the record of each operation; made once for those of an edit. */
function keysOf(operations: readonly Operation[]): readonly string[] {
  let known = keys.get(operations);
  if (!known) keys.set(operations, (known = operations.map(keyOf)));
  return known;
}

function keyOf({ document, kind, id }: Operation): string {
  return `${document}\u0000${kind}\u0000${id}`;
}
