import type { RecordFate } from '../document/document-registry';
import { applyOperation, type Json, type JsonRecord, type Operation } from '@stravel/core';

/**
 * An edit's operations as they can be written over what stands now. What was deleted meanwhile is made anew as it last was, with
 * the edit's values in it.
 * @param current what stands, by the place of each conflicting operation
 * @param fateOf what is known of the record that an operation is about
 */
export function keepMine(
  operations: readonly Operation[],
  current: ReadonlyMap<number, Json>,
  fateOf: (operation: Operation) => RecordFate,
): { readonly operations: Operation[] } | { readonly fault: string } {
  const restored = new Map<string, { readonly at: number; record: JsonRecord }>();
  const kept: (Operation | undefined)[] = [];
  for (const [i, operation] of operations.entries()) {
    const { document, kind, id, field, after } = operation;
    const key = `${document} ${kind} ${id}`;
    const known = restored.get(key);
    if (known && field !== null) {
      known.record = applyOperation(known.record, operation) ?? known.record;
      kept.push(undefined);
      continue;
    }
    const now = current.get(i);
    if (now === undefined) {
      kept.push(operation);
      continue;
    }
    const { stands, last } = field !== null && now === null ? fateOf(operation) : { stands: true, last: undefined };
    if (!stands && !last)
      return {
        fault: `The ${kind} was deleted, and its earlier state is not known here any more. Keep the newer state, or ask whoever deleted it to undo that first.`,
      };
    if (!stands && last) {
      restored.set(key, { at: kept.length, record: applyOperation(last, operation) ?? last });
      kept.push({ document, kind, id, field: null, before: null, after: null });
    } else if (field === null && after === null && now === null) {
      // It is deleted already, as was wanted.
      kept.push(undefined);
    } else kept.push({ ...operation, before: now });
  }
  for (const { at, record } of restored.values()) {
    const made = kept[at];
    if (made) kept[at] = { ...made, after: record };
  }
  return { operations: kept.filter((one): one is Operation => one !== undefined) };
}
