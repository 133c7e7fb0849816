import { CoreError } from '../errors';
import { isJsonTable, type Json } from '../model/json';
import type { EditableKind } from '../model/records';
import { applyOperation, type JsonRecord } from './apply-operation';
import { equalJson } from './equal-json';
import { invertOperations, type LoggedEdit, type Operation } from './operation';

/** A record by where it is kept. */
export interface Touched {
  readonly document: string;
  readonly kind: EditableKind;
  readonly id: string;
}

/**
 * The operations that bring records back to how they stood before some edits, whatever happened to them since. Made of
 * values as they stand now, so that one edit of them can be undone as any other.
 * @param since all edits that touched them after the wanted moment, oldest first
 * @param concerns which operations are to be taken back; the others of the same edits stay
 * @param current gives a record as it stands now, undefined when there is none
 * @throws CoreError 'HISTORY_GAP' when the edits do not lead to what stands now
 */
export function revertOperations(
  since: readonly LoggedEdit[],
  concerns: (operation: Operation) => boolean,
  current: (touched: Touched) => JsonRecord | undefined,
): Operation[] {
  const records = new Map<
    string,
    { readonly touched: Touched; readonly now: JsonRecord | undefined; then: JsonRecord | undefined }
  >();
  for (const edit of [...since].reverse()) {
    for (const inverse of invertOperations(edit.operations.filter(concerns))) {
      const { document, kind, id } = inverse;
      const key = `${document}\u0000${kind}\u0000${id}`;
      let known = records.get(key);
      if (!known) {
        const now = current({ document, kind, id });
        records.set(key, (known = { touched: { document, kind, id }, now, then: now }));
      }
      if (!known.then && inverse.field !== null)
        throw new CoreError(
          'HISTORY_GAP',
          `history: ${kind} ${id} does not exist, though it was changed and never removed`,
          { kind, id },
        );
      known.then = applyOperation(known.then, inverse);
    }
  }
  return inOrder([...records.values()].flatMap(({ touched, now, then }) => operationsBetween(touched, now, then)));
}

/** What comes must be there before what points at it; what goes must go last. */
export function inOrder(operations: readonly Operation[]): Operation[] {
  const isNew = (operation: Operation): boolean => operation.field === null && operation.before === null;
  const isGone = (operation: Operation): boolean => operation.field === null && operation.after === null;
  return [
    ...operations.filter(isNew),
    ...operations.filter((one) => !isNew(one) && !isGone(one)),
    ...operations.filter(isGone),
  ];
}

/** The operations that make a record into what it is to be, field by field. */
export function operationsBetween(
  touched: Touched,
  now: JsonRecord | undefined,
  then: JsonRecord | undefined,
): Operation[] {
  if (!now || !then) return now === then ? [] : [{ ...touched, field: null, before: now ?? null, after: then ?? null }];
  return [...new Set([...Object.keys(now), ...Object.keys(then)])].sort().flatMap((field): Operation[] => {
    const [before, after] = [now[field] ?? null, then[field] ?? null];
    if (equalJson(before, after)) return [];
    if (field !== 'values') return [{ ...touched, field, before, after }];
    // Values one by one, as they are edited.
    const [old, wanted] = [tableOf(before), tableOf(after)];
    return [...new Set([...Object.keys(old), ...Object.keys(wanted)])].sort().flatMap((key) => {
      const [one, other] = [old[key] ?? null, wanted[key] ?? null];
      return equalJson(one, other) ? [] : [{ ...touched, field: `values.${key}`, before: one, after: other }];
    });
  });
}

function tableOf(value: Json): JsonRecord {
  return isJsonTable(value) ? value : {};
}
