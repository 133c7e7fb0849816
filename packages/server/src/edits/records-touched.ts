import { RECORDS_DOCUMENT, isJsonTable, recordSpecOf, type Json, type Operation } from '@stravel/core';

/** Begins the entries that say which stratum a level owned; no id has a colon. */
const OWNED = 'owned:';

/**
 * What an edit is listed under: the id of each small record that it touches, and for each stratum whose owner it names
 * `owned:LEVEL:STRATUM`. Each once.
 */
export function recordsTouched(operations: readonly Operation[]): string[] {
  const records = new Set<string>();
  for (const { document, kind, id, field, before, after } of operations) {
    if (document !== RECORDS_DOCUMENT) continue;
    records.add(id);
    const ownedBy = recordSpecOf(kind)?.ownedBy;
    if (ownedBy === undefined) continue;
    const ownerOf = (record: Json): Json | undefined => (isJsonTable(record) ? record[ownedBy] : undefined);
    const owners = field === ownedBy ? [before, after] : field === null ? [ownerOf(before), ownerOf(after)] : [];
    for (const owner of owners) if (typeof owner === 'string') records.add(`${ownedPrefix(owner)}${id}`);
  }
  return [...records];
}

/** What the entries of the strata begin with that a level owned at some time. */
export function ownedPrefix(level: string): string {
  return `${OWNED}${level}:`;
}
