import { CoreError } from '../errors';
import type { JsonRecord } from '../document/apply-operation';
import type { Operation } from '../document/operation';
import { MAX_KEY_LETTERS, keyFault, keyFromName } from '../fields/key-text';
import { isJsonTable } from '../model/json';
import { RECORDS_DOCUMENT, type EditableKind, type RecordTables } from '../model/records';

/** Kinds of records that have a key, and what a key is made of where nothing of the name can stay. */
const KEYED = { level: 'level', kit: 'kit' } as const;
export type KeyedKind = keyof typeof KEYED;

export function isKeyed(kind: EditableKind): kind is KeyedKind {
  return Object.hasOwn(KEYED, kind);
}

/** Every key of a collection, of levels and kits in use or in the bin. */
export function takenKeys(tables: Pick<RecordTables, KeyedKind>): Set<string> {
  return new Set([...Object.values(tables.level), ...Object.values(tables.kit)].map(({ key }) => key));
}

/**
 * A key that is not taken, made from a name: with a number from 2 behind it when the plain one is taken, and from `level-12` on
 * where nothing of the name can stay.
 * @param number of the record in its table, from 1; stands behind the word of its kind
 */
export function freeKey(name: string, kind: KeyedKind, number: number, taken: { has(key: string): boolean }): string {
  const made = keyFromName(name);
  const isOwn = made !== '';
  const base = isOwn ? made : KEYED[kind];
  for (let i = isOwn ? 1 : number; ; i++) {
    const ending = isOwn && i === 1 ? '' : `-${i}`;
    // Room for the ending; a cut in the middle of a word is still a key.
    const key = `${base.slice(0, MAX_KEY_LETTERS - ending.length).replace(/-+$/, '')}${ending}`;
    if (!taken.has(key) && keyFault(key) === undefined) return key;
  }
}

/** A key for a record that is about to be made. */
export function newKey(tables: Pick<RecordTables, KeyedKind>, kind: KeyedKind, name: string): string {
  return freeKey(name, kind, Object.keys(tables[kind]).length + 1, takenKeys(tables));
}

/** Name of a level that nobody has named yet. */
export const NEW_LEVEL_NAME = 'New level';

/** Whether a key is one that a level got before it had a name; the first name then makes its key too. */
export function isPlaceholderKey(key: string): boolean {
  return /^new-level(?:-\d+)?$/.test(key);
}

/**
 * Gives a key to every level and kit that operations make without one, or with one that is taken: two people who make a
 * level of one name at the same time both keep theirs.
 * @param taken the keys before; asked for only when something is made
 * @param count of records of a kind before
 */
export function completeKeys(
  operations: readonly Operation[],
  taken: () => Set<string>,
  count: (kind: KeyedKind) => number,
): readonly Operation[] {
  let keys: Set<string> | undefined;
  let made = 0;
  const completed = operations.map((operation) => {
    const { document, kind, field, before, after } = operation;
    if (document !== RECORDS_DOCUMENT || !isKeyed(kind) || field !== null || before !== null || !isJsonTable(after))
      return operation;
    keys ??= taken();
    made += 1;
    const own = after['key'];
    if (typeof own === 'string' && !keys.has(own)) {
      keys.add(own);
      return operation;
    }
    // A key that is no text is for the record's own check to refuse.
    if (own !== undefined && typeof own !== 'string') return operation;
    const key = freeKey(own ?? text(after, 'name'), kind, count(kind) + made, keys);
    keys.add(key);
    return { ...operation, after: { ...after, key } };
  });
  return completed.some((operation, i) => operation !== operations[i]) ? completed : operations;
}

/**
 * Checks that no two levels or kits have one key after an edit.
 * @param touched what the edit leaves; `all` gives every record of a kind as it stands before
 * @throws CoreError 'KEY_TAKEN' naming the key and who has it
 */
export function checkKeys(
  touched: readonly { readonly kind: EditableKind; readonly id: string; readonly record: JsonRecord | undefined }[],
  all: (kind: KeyedKind) => Iterable<readonly [string, JsonRecord]>,
): void {
  const keyed = touched.filter(({ kind }) => isKeyed(kind));
  if (!keyed.some(({ record }) => record)) return;
  const owners = new Map<string, { readonly kind: EditableKind; readonly id: string; readonly name: string }>();
  const changed = new Set(keyed.map(({ kind, id }) => `${kind} ${id}`));
  for (const kind of Object.keys(KEYED) as KeyedKind[]) {
    for (const [id, record] of all(kind))
      if (!changed.has(`${kind} ${id}`)) owners.set(text(record, 'key'), { kind, id, name: text(record, 'name') });
  }
  for (const { kind, id, record } of keyed) {
    if (!record) continue;
    const key = text(record, 'key');
    const owner = owners.get(key);
    if (owner)
      throw new CoreError(
        'KEY_TAKEN',
        `edit: the key ${key} of ${kind} ${id} is taken by the ${owner.kind} ${owner.name}`,
        { key, kind: owner.kind, id: owner.id },
      );
    owners.set(key, { kind, id, name: text(record, 'name') });
  }
}

function text(record: JsonRecord, field: string): string {
  const value = record[field];
  return typeof value === 'string' ? value : '';
}
