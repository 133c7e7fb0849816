import { valueAt, type JsonRecord } from '../edits/apply-operation';
import { equalJson } from '../edits/equal-json';
import type { Operation } from '../edits/operation';
import type { FieldValue } from '../model/field';
import type { Json } from '../model/json';
import type { Level } from '../model/level';
import { RECORDS_DOCUMENT, type RecordTables } from '../model/records';
import type { Entry } from '../model/register';
import { defaultValues, entriesOf, fieldsOf, type FilledRecord } from './field-tables';
import { fieldText, linkLookup, plainText, type LinkLookup } from './field-value';
import { addToList } from './list-map';
import { compareOrdered, levelsInOrder, ordersBetween } from './order';
import { planCells, type CellColumn, type CellText } from './write-cells';

/** By what a row finds the record that it is about. */
export const MATCH_BY = ['id', 'code', 'name'] as const;
export type MatchBy = (typeof MATCH_BY)[number];

export type RowOutcome = 'new' | 'changed' | 'unchanged' | 'refused';

/** What would become of one row. */
export interface PlannedRow {
  /** From 1, the header not counted. */
  readonly row: number;
  readonly name: string;
  readonly outcome: RowOutcome;
  /** What changes, or why it is refused. */
  readonly why: string;
}

export interface ImportPlan {
  readonly rows: readonly PlannedRow[];
  readonly counts: Readonly<Record<RowOutcome, number>>;
  readonly operations: readonly Operation[];
}

export interface ImportRowsInput {
  /** Null for the levels. */
  readonly register: string | null;
  /** Without the header. */
  readonly rows: readonly (readonly string[])[];
  /** What each column of the rows is written into; null leaves it out. 'id' only finds. */
  readonly mapping: readonly (CellColumn | 'id' | null)[];
  readonly matchBy: MatchBy;
  /** Set in which new levels stand. */
  readonly set: string;
  /** Ids for new records, at least as many as rows. */
  readonly newIds: readonly string[];
}

export type ImportTables = Pick<RecordTables, 'level' | 'set' | 'entry' | 'field'>;

/**
 * What rows of a file would do to a table, before anything is written. A row is taken whole or refused whole. A row
 * that finds nothing makes a new record; one that finds several is refused.
 */
export function planImport(tables: ImportTables, input: ImportRowsInput): ImportPlan {
  const { register, rows, mapping, matchBy } = input;
  const links = linkLookup(tables);
  const found = finder(tables, register, matchBy);
  const keyColumn = mapping.findIndex((column) => (column === 'id' ? matchBy === 'id' : column?.path === matchBy));
  const seen = new Map<string, number>();
  const fresh = new NewRecords(tables, input);
  const targets = rows.map((row, i): { record?: FilledRecord; isNew: boolean; fault: string } => {
    const key = keyColumn < 0 ? '' : (row[keyColumn] ?? '').trim();
    const matches = key === '' ? [] : (found.get(key.toLowerCase()) ?? []);
    if (matches.length > 1) return { isNew: false, fault: `Several have the ${matchBy} “${key}”.` };
    if (matches.length === 1) {
      const earlier = seen.get(matches[0].id);
      seen.set(matches[0].id, i + 1);
      return earlier === undefined ? { record: matches[0], isNew: false, fault: '' } : { isNew: false, fault: `Row ${earlier} is about it already.` };
    }
    if (matchBy === 'id' && key !== '') return { isNew: true, fault: `Nothing has the id “${key}”.` };
    return { record: fresh.make(i), isNew: true, fault: '' };
  });
  const texts = targets.map(({ record }, i): CellText[] =>
    record ? mapping.flatMap((column, c) => (column === null || column === 'id' ? [] : [{ record, column, text: rows[i][c] ?? '' }])) : [],
  );
  const plan = planCells(tables, register === null ? 'level' : 'entry', texts.flat(), links);
  const operations: Operation[] = [];
  let at = 0;
  const planned = targets.map(({ record, isNew, fault }, i): PlannedRow => {
    const cells = plan.cells.slice(at, at + texts[i].length);
    at += texts[i].length;
    const name = String(cells.find(({ column }) => column.path === 'name')?.after ?? record?.name ?? '');
    const of = { row: i + 1, name };
    const refused =
      fault ||
      cells
        .filter(({ outcome }) => outcome === 'refused')
        .map(({ column, why }) => `${column.field.name}: ${why}`)
        .join(' ');
    if (refused !== '' || !record) return { ...of, outcome: 'refused', why: refused };
    if (isNew) {
      if (name === '') return { ...of, outcome: 'refused', why: 'A new record needs a name.' };
      const filled = cells.reduce<FilledRecord>((one, { column, after }) => withValue(one, column, after), record);
      operations.push({ document: RECORDS_DOCUMENT, kind: register === null ? 'level' : 'entry', id: record.id, field: null, before: null, after: filled as unknown as Json });
      return { ...of, outcome: 'new', why: '' };
    }
    const changed = cells.filter(({ before, after }) => !equalJson(before as Json, after as Json));
    if (changed.length === 0) return { ...of, outcome: 'unchanged', why: '' };
    for (const { column, before, after } of changed) {
      operations.push({ document: RECORDS_DOCUMENT, kind: register === null ? 'level' : 'entry', id: record.id, field: column.path, before: before as Json, after: after as Json });
    }
    return { ...of, outcome: 'changed', why: changed.map(({ column }) => column.field.name).join(', ') };
  });
  const counts: Record<RowOutcome, number> = { new: 0, changed: 0, unchanged: 0, refused: 0 };
  for (const { outcome } of planned) counts[outcome] += 1;
  return { rows: planned, counts, operations };
}

function withValue(record: FilledRecord, { path, field }: CellColumn, value: FieldValue): FilledRecord {
  if (!path.startsWith('values.')) return { ...record, [path]: value };
  return value === null ? record : { ...record, values: { ...record.values, [field.key]: value } };
}

function finder(tables: ImportTables, register: string | null, by: MatchBy): Map<string, FilledRecord[]> {
  const records: readonly FilledRecord[] = register === null ? levelsInOrder(tables) : entriesOf(tables, register);
  const found = new Map<string, FilledRecord[]>();
  for (const record of records) {
    const key = by === 'code' ? ('code' in record ? record.code : '') : record[by];
    if (key !== '') addToList(found, key.toLowerCase(), record);
  }
  return found;
}

/** Records that stand behind all others of their table, with defaults. */
class NewRecords {
  private readonly orders: readonly string[];
  private readonly values: Readonly<Record<string, FieldValue>>;
  private made = 0;

  constructor(
    tables: ImportTables,
    private readonly input: ImportRowsInput,
  ) {
    const { register, set, rows } = input;
    const siblings = register === null ? Object.values(tables.level).filter((level) => level.set === set) : entriesOf(tables, register);
    const last = [...siblings].sort(compareOrdered).at(-1);
    this.orders = ordersBetween(last?.order ?? null, null, Math.max(1, rows.length));
    this.values = defaultValues(fieldsOf(tables, register));
  }

  make(row: number): Level | Entry {
    const { register, set, newIds } = this.input;
    const shared = { id: newIds[row], name: '', order: this.orders[this.made++], values: this.values };
    return register === null ? { ...shared, set, purpose: 'play', code: '', strata: [], openSky: false, bounds: null, binned: null } : { ...shared, register };
  }
}

/** A table as rows of text, its header first: id, then the columns. `planImport` reads them back by id as unchanged. */
export function tableRowsText(tables: ImportTables, register: string | null, columns: readonly CellColumn[], links: LinkLookup = linkLookup(tables)): string[][] {
  const records: readonly FilledRecord[] = register === null ? levelsInOrder(tables) : entriesOf(tables, register);
  const written = columns.filter(({ field }) => !field.figure);
  const text = (record: FilledRecord, { path, field }: CellColumn): string => {
    if (!path.startsWith('values.')) return plainText((valueAt(record as unknown as JsonRecord, path) ?? null) as FieldValue);
    return fieldText(field, Object.hasOwn(record.values, field.key) ? record.values[field.key] : null, links);
  };
  return [['id', ...written.map(({ field }) => field.name)], ...records.map((record) => [record.id, ...written.map((column) => text(record, column))])];
}
