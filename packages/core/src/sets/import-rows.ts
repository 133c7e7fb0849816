import { plainJson, plainRecord } from '../json/plain-json';
import { valueAt } from '../document/apply-operation';
import { equalJson } from '../document/equal-json';
import type { Operation } from '../document/operation';
import type { FieldValue } from '../model/field';
import type { Level } from '../model/level';
import { RECORDS_DOCUMENT, type RecordTables } from '../model/records';
import type { Entry } from '../model/register';
import { recordFaults } from '../document/validate-record';
import { defaultValues, entriesOf, fieldsOf, type FilledRecord } from './field-tables';
import { fieldText, linkLookup, plainText, type LinkLookup } from './field-value';
import { ImportedSets, NEW_SET_NAME, setPathText } from './import-sets';
import { freeKey, isKeyed, takenKeys } from './keys';
import { addToList } from './list-map';
import { compareOrdered } from '../model/ordered';
import { levelsInOrder, ordersBetween } from './order';
import { planCells, type CellColumn, type CellText } from './write-cells';

/** By what a row finds the record that it is about. */
export const MATCH_BY = ['id', 'key', 'code', 'name'] as const;
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
  /** What each column of the rows is written into; null leaves it out. 'id' only finds; 'set' is where a level stands, as “Part / Chapter”. */
  readonly mapping: readonly (CellColumn | 'id' | 'set' | null)[];
  readonly matchBy: MatchBy;
  /** Set in which new levels stand whose row names none; null makes one when it is needed. */
  readonly set: string | null;
  /** Ids for new records, at least as many as rows; for new sets they are lengthened. */
  readonly newIds: readonly string[];
}

export type ImportTables = Pick<RecordTables, 'level' | 'set' | 'entry' | 'field' | 'kit'>;

/** A row with the record that it is about. */
interface Target {
  readonly record: FilledRecord | undefined;
  readonly isNew: boolean;
  readonly fault: string;
}

/**
 * What rows of a file would do to a table, before anything is written. A row is taken whole or refused whole. A row
 * that finds nothing makes a new record; one that finds several is refused. What it allows is saved as it is: each record
 * has been checked as the server does.
 */
export function planImport(tables: ImportTables, input: ImportRowsInput): ImportPlan {
  const { register, rows, mapping } = input;
  const kind = register === null ? 'level' : 'entry';
  const links = linkLookup(tables);
  const targets = targetsOf(tables, input);
  const texts = targets.map(({ record }, i): CellText[] =>
    record
      ? mapping.flatMap((column, c) =>
          column === null || typeof column === 'string' ? [] : [{ record, column, text: rows[i][c] ?? '' }],
        )
      : [],
  );
  const plan = planCells(tables, kind, texts.flat(), links);
  const places = new LevelPlaces(tables, input);
  const operations: Operation[] = [];
  const keys = takenKeys(tables);
  let at = 0;
  const planned = targets.map(({ record, isNew, fault }, i): PlannedRow => {
    const cells = plan.cells.slice(at, at + texts[i].length);
    at += texts[i].length;
    const name = String(cells.find(({ column }) => column.path === 'name')?.after ?? record?.name ?? '');
    const refuse = (why: string): PlannedRow => ({ row: i + 1, name, outcome: 'refused', why });
    const cellFaults = cells
      .filter(({ outcome }) => outcome === 'refused')
      .map(({ column, why }) => `${column.field.name}: ${why}`);
    const place = places.find(i, record);
    if (fault !== '' || !record) return refuse(fault);
    if (cellFaults.length > 0) return refuse(cellFaults.join(' '));
    if ('fault' in place) return refuse(`Set: ${place.fault}`);
    if (isNew && name === '') return refuse('A new record needs a name.');
    const changed = cells.filter(({ before, after }) => isNew || !equalJson(plainJson(before), plainJson(after)));
    let filled = changed.reduce<FilledRecord>((one, { column, after }) => withValue(one, column, after), {
      ...record,
      ...place.fields,
    });
    if (isNew && isKeyed(kind) && 'key' in filled && filled.key === '')
      filled = { ...filled, key: freeKey(name, kind, Object.keys(tables[kind]).length + i + 1, keys) };
    const faults = recordFaults(kind, filled);
    if (faults.length > 0) return refuse(faults.map(({ message }) => `${message}.`).join(' '));
    if ('key' in filled) keys.add(filled.key);
    if (changed.length === 0 && Object.keys(place.fields).length === 0)
      return { row: i + 1, name, outcome: 'unchanged', why: '' };
    places.take(place);
    if (isNew) {
      operations.push({
        document: RECORDS_DOCUMENT,
        kind,
        id: record.id,
        field: null,
        before: null,
        after: plainJson(filled),
      });
      return { row: i + 1, name, outcome: 'new', why: '' };
    }
    const moved = Object.entries(place.fields).map(([path, after]) => ({
      path,
      before: valueAt(plainRecord(record), path),
      after,
    }));
    for (const { path, before, after } of [
      ...changed.map(({ column, before, after }) => ({ path: column.path, before, after })),
      ...moved,
    ]) {
      operations.push({
        document: RECORDS_DOCUMENT,
        kind,
        id: record.id,
        field: path,
        before: plainJson(before),
        after: plainJson(after),
      });
    }
    return {
      row: i + 1,
      name,
      outcome: 'changed',
      why: [...changed.map(({ column }) => column.field.name), ...(moved.length > 0 ? ['Set'] : [])].join(', '),
    };
  });
  const counts: Record<RowOutcome, number> = { new: 0, changed: 0, unchanged: 0, refused: 0 };
  for (const { outcome } of planned) counts[outcome] += 1;
  return { rows: planned, counts, operations: [...places.operations(), ...operations] };
}

/** The record that each row is about. */
function targetsOf(tables: ImportTables, { register, rows, mapping, matchBy, newIds }: ImportRowsInput): Target[] {
  const found = finder(tables, register, matchBy);
  const keyColumn = mapping.findIndex((column) =>
    typeof column === 'string' ? column === matchBy : column?.path === matchBy,
  );
  const seen = new Map<string, number>();
  const values = defaultValues(fieldsOf(tables, register));
  const orders =
    register === null
      ? []
      : ordersBetween(entriesOf(tables, register).at(-1)?.order ?? null, null, Math.max(1, rows.length));
  const make = (row: number): Level | Entry => {
    const shared = { id: newIds[row], name: '', values };
    if (register !== null) return { ...shared, order: orders[row], register };
    return {
      ...shared,
      key: '',
      set: '',
      order: '',
      purpose: 'play',
      code: '',
      strata: [],
      openSky: false,
      bounds: null,
      binned: null,
    };
  };
  return rows.map((row, i): Target => {
    const key = keyColumn < 0 ? '' : (row[keyColumn] ?? '').trim();
    const matches = key === '' ? [] : (found.get(key.toLowerCase()) ?? []);
    if (matches.length > 1) return { record: undefined, isNew: false, fault: `Several have the ${matchBy} “${key}”.` };
    if (matches.length === 1) {
      const earlier = seen.get(matches[0].id);
      seen.set(matches[0].id, i + 1);
      return earlier === undefined
        ? { record: matches[0], isNew: false, fault: '' }
        : { record: undefined, isNew: false, fault: `Row ${earlier} is about it already.` };
    }
    if (matchBy === 'id' && key !== '')
      return { record: undefined, isNew: true, fault: `Nothing has the id “${key}”.` };
    return { record: make(i), isNew: true, fault: '' };
  });
}

/** Where a row puts its level: nothing for entries and for levels that stay. */
interface RowPlace {
  readonly fields: { readonly set?: string; readonly order?: string };
}

/** The sets and places of the levels that rows make or move. */
class LevelPlaces {
  private readonly sets: ImportedSets;
  private readonly column: number;
  private readonly lastOrder = new Map<string, string>();

  constructor(
    tables: ImportTables,
    private readonly input: ImportRowsInput,
  ) {
    this.sets = new ImportedSets(tables);
    this.column = input.mapping.indexOf('set');
    for (const { set, order } of Object.values(tables.level).sort(compareOrdered)) this.lastOrder.set(set, order);
  }

  find(row: number, record: FilledRecord | undefined): RowPlace | { readonly fault: string } {
    const { register, rows, set, newIds } = this.input;
    if (register !== null || !record || !('set' in record)) return { fields: {} };
    const { set: now } = record;
    const path = this.column < 0 ? '' : (rows[row][this.column] ?? '').trim();
    if (path === '' && now !== '') return { fields: {} };
    const found =
      path === '' && set !== null ? { id: set } : this.sets.find(path === '' ? NEW_SET_NAME : path, newIds[row]);
    if ('fault' in found) return found;
    if (found.id === now) return { fields: {} };
    return { fields: { set: found.id, order: ordersBetween(this.lastOrder.get(found.id) ?? null, null)[0] } };
  }

  /** A row is taken: its set is needed, and its place is no longer free. */
  take({ fields: { set, order } }: RowPlace): void {
    if (set === undefined || order === undefined) return;
    this.sets.use(set);
    this.lastOrder.set(set, order);
  }

  operations(): Operation[] {
    return this.sets.operations();
  }
}

function withValue(record: FilledRecord, { path, field }: CellColumn, value: FieldValue): FilledRecord {
  if (!path.startsWith('values.')) return { ...record, [path]: value };
  return value === null ? record : { ...record, values: { ...record.values, [field.key]: value } };
}

function finder(tables: ImportTables, register: string | null, by: MatchBy): Map<string, FilledRecord[]> {
  const records: readonly FilledRecord[] = register === null ? levelsInOrder(tables) : entriesOf(tables, register);
  const found = new Map<string, FilledRecord[]>();
  for (const record of records) {
    const key = by === 'code' || by === 'key' ? ('code' in record ? record[by] : '') : record[by];
    if (key !== '') addToList(found, key.toLowerCase(), record);
  }
  return found;
}

/** A table as rows of text, its header first: id, the set of a level, then the columns. `planImport` reads them back by id as unchanged. */
export function tableRowsText(
  tables: ImportTables,
  register: string | null,
  columns: readonly CellColumn[],
  links: LinkLookup = linkLookup(tables),
): string[][] {
  const records: readonly FilledRecord[] = register === null ? levelsInOrder(tables) : entriesOf(tables, register);
  const written = columns.filter(({ field }) => !field.figure);
  const text = (record: FilledRecord, { path, field }: CellColumn): string => {
    if (!path.startsWith('values.')) return plainText((valueAt(plainRecord(record), path) ?? null) as FieldValue);
    return fieldText(field, Object.hasOwn(record.values, field.key) ? record.values[field.key] : null, links);
  };
  const place = (record: FilledRecord): string[] => ('set' in record ? [setPathText(tables.set, record.set)] : []);
  return [
    ['id', ...(register === null ? ['Set'] : []), ...written.map(({ field }) => field.name)],
    ...records.map((record) => [record.id, ...place(record), ...written.map((column) => text(record, column))]),
  ];
}
