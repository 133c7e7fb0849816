import { plainRecord } from '../json/plain-json';
import type { CollectionContent } from '../model/collection-content';
import { RECORDS_DOCUMENT, type EditableKind } from '../model/records';
import { ITEM_KINDS } from '../items';
import { RECORDS, RECORD_KINDS } from '../records';
import type { Item } from '../model/items';
import type { JsonRecord } from './apply-operation';
import type { DocumentState } from './document-state';
import { equalJson } from './equal-json';
import { inOrder, operationsBetween } from './revert-operations';
import type { Operation } from './operation';

/** What becomes of the records of one kind. */
export interface KindChanges {
  readonly kind: EditableKind;
  readonly added: number;
  readonly changed: number;
  readonly removed: number;
}

/** One edit that makes a collection into another's content. */
export interface RestorePlan {
  readonly operations: readonly Operation[];
  /** Only kinds of which something changes, in order of name. */
  readonly changes: readonly KindChanges[];
}

/** So many records are compared between two pauses. */
const COMPARED_AT_ONCE = 1000;

/**
 * The edit that makes a collection hold what an archive holds. Its id and name stay. A stratum that the archive has not goes with its
 * record; what stands in it is left where it is kept, so that undo brings it back. Pauses after every thousand records; what stands must not
 * change in a pause.
 * @param now gives a document as it stands, for strata that are not in the collection too
 */
export function* restoreOperations(
  now: (document: string) => DocumentState,
  then: Pick<CollectionContent, 'records' | 'strata'>,
): Generator<undefined, RestorePlan> {
  const operations: Operation[] = [];
  const changes = new Map<EditableKind, { kind: EditableKind; added: number; changed: number; removed: number }>();
  function* compare(
    document: string,
    kind: EditableKind,
    list: Iterable<readonly [string, JsonRecord]>,
  ): Generator<undefined> {
    let compared = 0;
    const isPause = (): boolean => ++compared % COMPARED_AT_ONCE === 0;
    const wanted = new Map<string, JsonRecord>();
    for (const [id, record] of list) {
      wanted.set(id, record);
      if (isPause()) yield;
    }
    const standing = now(document).get(kind) ?? new Map<string, JsonRecord>();
    const count = changes.get(kind) ?? { kind, added: 0, changed: 0, removed: 0 };
    changes.set(kind, count);
    const differing: string[] = [];
    // Of very many records few differ: what is equal is passed over before anything is listed or sorted.
    for (const [id, before] of standing) {
      const after = wanted.get(id);
      if (!after || !equalJson(before, after)) differing.push(id);
      if (isPause()) yield;
    }
    for (const id of wanted.keys()) if (!standing.has(id)) differing.push(id);
    for (const id of differing.sort()) {
      const [before, after] = [standing.get(id), wanted.get(id)];
      const made = operationsBetween({ document, kind, id }, before, after);
      if (made.length === 0) continue;
      if (!before) count.added++;
      else if (!after) count.removed++;
      else count.changed++;
      operations.push(...made);
      if (isPause()) yield;
    }
  }
  for (const kind of RECORD_KINDS) {
    const kept = RECORDS[kind].keptOnRestore ?? [];
    const standing = [...(now(RECORDS_DOCUMENT).get(kind)?.values() ?? [])][0];
    const keptFields = standing
      ? Object.fromEntries(kept.flatMap((field) => (field in standing ? [[field, standing[field]] as const] : [])))
      : {};
    const records = Object.entries(then.records[kind]).map(([id, record]): [string, JsonRecord] => {
      const plain = plainRecord(record);
      return [id, kept.length > 0 ? { ...plain, ...keptFields } : plain];
    });
    yield* compare(RECORDS_DOCUMENT, kind, records);
  }
  for (const [stratum, content] of then.strata) {
    for (const kind of ITEM_KINDS) yield* compare(stratum, kind, byId(content[kind]));
  }
  return {
    operations: inOrder(operations),
    changes: [...changes.values()]
      .filter(({ added, changed, removed }) => added + changed + removed > 0)
      .sort((a, b) => (a.kind < b.kind ? -1 : 1)),
  };
}

function* byId(items: Iterable<Item>): Generator<readonly [string, JsonRecord]> {
  for (const item of items) yield [item.id, plainRecord(item)];
}
