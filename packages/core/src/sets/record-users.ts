import type { IdTarget } from '../items/ids';
import type { EditableKind, RecordKind, RecordTables } from '../model/records';
import { RECORDS, RECORD_KINDS, calledAsUser, overRecordIds } from '../records';
import { linkUses } from './links';

/** A record that points at another. */
export interface RecordUser {
  readonly kind: EditableKind;
  readonly id: string;
  /** What it is called, with what it belongs to: 'Evening run in Low Water'. */
  readonly name: string;
}

/** A record whose users are looked for. */
export interface UsedRecord {
  readonly kind: RecordKind;
  readonly id: string;
}

/**
 * The small records that would point at nothing if a record were gone, in a steady order. Content of strata is not looked
 * into: whether a piece is placed is for the content to say.
 */
export function recordUsers(tables: RecordTables, kind: RecordKind, id: string): RecordUser[] {
  return usersOfAll(tables, [{ kind, id }])[0];
}

/** The same for several records, in their order. Cost: one pass over the kinds that can point at any of them. */
export function usersOfAll(tables: RecordTables, used: readonly UsedRecord[]): RecordUser[][] {
  const found: Found = new Map();
  for (const { kind, id } of used) {
    const ofKind = found.get(kind) ?? new Map<string, RecordUser[]>();
    found.set(kind, ofKind.set(id, []));
  }
  for (const user of RECORD_KINDS) {
    if (RECORDS[user].pointsAt.some((kind) => found.has(kind))) gather(tables, user, found);
  }
  const links = used.some(({ kind }) => RECORDS[kind].isKeptByValues) ? linkUses(tables) : undefined;
  return used.map(({ kind, id }) => {
    const values = RECORDS[kind].isKeptByValues ? (links?.get(id) ?? []) : [];
    const byValue = values.map(({ kind: user, field, record }): RecordUser => ({
      kind: user,
      id: record.id,
      name: `${field.name} of ${record.name}`,
    }));
    return [...(found.get(kind)?.get(id) ?? []), ...byValue];
  });
}

/** Users of the records that are looked for, by kind and id. */
type Found = Map<IdTarget, Map<string, RecordUser[]>>;

/** Adds the records of one kind, by name, each once however often it points at the same. */
function gather<K extends RecordKind>(tables: RecordTables, user: K, found: Found): void {
  const users = new Map<RecordUser[], Map<string, RecordUser>>();
  for (const record of Object.values(tables[user])) {
    overRecordIds(user, record, (one, use) => {
      const list = use.isStrict ? found.get(use.to)?.get(one) : undefined;
      if (!list) return one;
      const own = users.get(list) ?? new Map<string, RecordUser>();
      users.set(list, own);
      if (!own.has(record.id)) {
        own.set(record.id, { kind: user, id: record.id, name: calledAsUser(user, record, use, tables) });
      }
      return one;
    });
  }
  for (const [list, own] of users) {
    list.push(...[...own.values()].sort((a, b) => (a.name < b.name ? -1 : a.name > b.name ? 1 : a.id < b.id ? -1 : 1)));
  }
}
