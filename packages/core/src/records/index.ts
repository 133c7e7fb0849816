import type { EachId, IdUse } from '../items/ids';
import { byKey } from '../model/by-key';
import type { RecordKind, RecordOfKind, RecordTables } from '../model/records';
import { ACCEPTANCE } from './acceptance/spec';
import { CARRIED_VALUE } from './carried-value/spec';
import { CELL_GRID } from './cell-grid/spec';
import { COLLECTION } from './collection/spec';
import { DEVICE } from './device/spec';
import { ENTRY } from './entry/spec';
import { FIELD } from './field/spec';
import { KIT } from './kit/spec';
import { LEVEL_ORDER } from './level-order/spec';
import { LEVEL_SET } from './level-set/spec';
import { LEVEL } from './level/spec';
import { PIECE } from './piece/spec';
import type { RecordSpec, RecordSpecs } from './record-spec';
import { REGISTER } from './register/spec';
import { REHEARSAL } from './rehearsal/spec';
import { STRATUM } from './stratum/spec';
import { TABLE_VIEW } from './table-view/spec';
import { TARGET } from './target/spec';

/** Every kind of small record: a new one is a room and a line here. */
export const RECORDS: RecordSpecs = {
  collection: COLLECTION,
  set: LEVEL_SET,
  level: LEVEL,
  field: FIELD,
  stratum: STRATUM,
  kit: KIT,
  piece: PIECE,
  device: DEVICE,
  acceptance: ACCEPTANCE,
  cellGrid: CELL_GRID,
  rehearsal: REHEARSAL,
  register: REGISTER,
  entry: ENTRY,
  carriedValue: CARRIED_VALUE,
  levelOrder: LEVEL_ORDER,
  tableView: TABLE_VIEW,
  target: TARGET,
};

export const RECORD_KINDS = Object.keys(RECORDS) as readonly RecordKind[];

/** Whether a word names a kind of small record. */
export function isRecordKind(word: string): word is RecordKind {
  return Object.hasOwn(RECORDS, word);
}

/** What is known of a kind of small record; undefined for what is none. */
export function recordSpecOf(kind: string): RecordSpecs[RecordKind] | undefined {
  return isRecordKind(kind) ? RECORDS[kind] : undefined;
}

/** Goes over all ids that some fields of a record point at; the kind is not known before. */
export function overRecordIds<T extends object>(kind: RecordKind, record: T, each: EachId): T {
  const walk = RECORDS[kind].ids as unknown as (record: T, each: EachId) => T;
  return walk(record, each);
}

/** What a record is called where it is told that it uses something. */
export function calledAsUser<K extends RecordKind>(
  kind: K,
  record: RecordOfKind[K],
  use: IdUse,
  tables: RecordTables,
): string {
  return (RECORDS[kind] as RecordSpec<K>).asUser(record, use, tables);
}

/** Tables with nothing in them. */
export function emptyRecordTables(): { [K in RecordKind]: Record<string, RecordOfKind[K]> } {
  return byKey(RECORD_KINDS, () => ({}));
}
