import type { EditableKind, RecordKind, RecordTables } from '../model/records';
import { RECORDS, RECORD_KINDS, calledAsUser, overRecordIds } from '../records';
import { linkUses } from '../sets/links';

/** A record that points at another. */
export interface RecordUser {
  readonly kind: EditableKind;
  readonly id: string;
  /** What it is called, with what it belongs to: 'Evening run in Low Water'. */
  readonly name: string;
}

/**
 * The small records that would point at nothing if a record were gone, in a steady order. Content of strata is not looked
 * into: whether a piece is placed is for the content to say.
 */
export function recordUsers(tables: RecordTables, kind: RecordKind, id: string): RecordUser[] {
  const own = RECORD_KINDS.flatMap((user) => usersOf(tables, user, kind, id));
  const values = RECORDS[kind].isKeptByValues ? (linkUses(tables).get(id) ?? []) : [];
  const byValue = values.map(({ kind: user, field, record }): RecordUser => ({
    kind: user,
    id: record.id,
    name: `${field.name} of ${record.name}`,
  }));
  return [...own, ...byValue];
}

/** Records of one kind that point at another, by name. */
function usersOf<K extends RecordKind>(tables: RecordTables, user: K, kind: RecordKind, id: string): RecordUser[] {
  const found: RecordUser[] = [];
  for (const record of Object.values(tables[user])) {
    let name: string | undefined;
    overRecordIds(user, record, (one, use) => {
      if (use.isStrict && use.to === kind && one === id) name ??= calledAsUser(user, record, use, tables);
      return one;
    });
    if (name !== undefined) found.push({ kind: user, id: record.id, name });
  }
  return found.sort((a, b) => (a.name < b.name ? -1 : a.name > b.name ? 1 : a.id < b.id ? -1 : 1));
}
