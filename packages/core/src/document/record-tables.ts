import { storedRecord } from './stored-record';
import type { JsonRecord } from './apply-operation';
import { plainRecord } from '../json/plain-json';
import type { EditableKind, RecordKind, RecordOfKind, RecordTables } from '../model/records';
import { RECORD_KINDS, emptyRecordTables, isRecordKind } from '../records';

/** A record of one of the tables as JSON; undefined where there is none, and for what is no kind of small record. */
export function recordInTables(tables: RecordTables, kind: EditableKind, id: string): JsonRecord | undefined {
  if (!isRecordKind(kind)) return undefined;
  const table: Readonly<Record<string, RecordOfKind[RecordKind]>> = tables[kind];
  return Object.hasOwn(table, id) ? plainRecord(table[id]) : undefined;
}

type Tables<K extends RecordKind = RecordKind> = { [P in K]: Record<string, RecordOfKind[P]> };

/** One record put into the tables, or taken away where undefined. */
export interface RecordPut {
  readonly kind: EditableKind;
  readonly id: string;
  readonly record: JsonRecord | undefined;
}

/** The tables with some records put or taken away; what is no small record is left out. The tables that change are copied. */
export function tablesWith(tables: RecordTables, records: Iterable<RecordPut>): RecordTables {
  const copied: Partial<Tables> = {};
  for (const { kind, id, record } of records) if (isRecordKind(kind)) put(copied, tables, kind, id, record);
  return { ...tables, ...copied };
}

function put<K extends RecordKind>(
  copied: Partial<Tables<K>>,
  tables: Pick<RecordTables, K>,
  kind: K,
  id: string,
  record: JsonRecord | undefined,
): void {
  const table: Record<string, RecordOfKind[K]> = copied[kind] ?? { ...tables[kind] };
  if (record) table[id] = storedRecord(kind, record);
  else delete table[id];
  copied[kind] = table;
}

/** Tables of kept records. */
export function tablesOfKept(kept: (kind: RecordKind) => Iterable<readonly [string, JsonRecord]>): Tables {
  const tables = emptyRecordTables();
  const fill = <K extends RecordKind>(kind: K): void => {
    const table: Record<string, RecordOfKind[K]> = tables[kind];
    for (const [id, record] of kept(kind)) table[id] = storedRecord(kind, record);
  };
  RECORD_KINDS.forEach(fill);
  return tables;
}
