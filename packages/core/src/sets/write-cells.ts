import { plainJson, plainRecord } from '../json/plain-json';
import { equalJson } from '../document/equal-json';
import { valueAt } from '../document/apply-operation';
import type { Operation } from '../document/operation';
import type { Field, FieldValue } from '../model/field';
import { RECORDS_DOCUMENT, type RecordTables } from '../model/records';
import { recordsOfField, uniqueKey, type FilledKind, type FilledRecord } from './field-tables';
import { keyFault } from '../fields/key-text';
import { currentPurpose } from '../upgrades/test-levels';
import { linkLookup, readFieldText, type LinkLookup } from './field-value';

/** A column that text can be written into: 'name', 'key', 'code', 'purpose' or 'values.' and a key, with what it must be. */
export interface CellColumn {
  readonly path: string;
  readonly field: Field;
}

/** One cell to be written. */
export interface CellText {
  readonly record: FilledRecord;
  readonly column: CellColumn;
  readonly text: string;
}

export type CellOutcome = 'changed' | 'unchanged' | 'refused';

/** What would become of one cell. */
export interface PlannedCell {
  readonly record: FilledRecord;
  readonly column: CellColumn;
  readonly text: string;
  readonly before: FieldValue;
  readonly after: FieldValue;
  readonly outcome: CellOutcome;
  /** Why it is refused. */
  readonly why: string;
}

export interface CellPlan {
  readonly cells: readonly PlannedCell[];
  readonly counts: Readonly<Record<CellOutcome, number>>;
  /** One edit's worth: every cell that changes. */
  readonly operations: readonly Operation[];
}

/** Longest text of what every record has, as its schema says. */
const LONGEST: Readonly<Record<string, number>> = { name: 200, code: 40 };

type Tables = Pick<RecordTables, 'level' | 'set' | 'entry' | 'kit'>;

/** What text would do to cells, before anything is written. A cell that is refused leaves the others alone. */
export function planCells(
  tables: Tables,
  kind: FilledKind,
  texts: readonly CellText[],
  links: LinkLookup = linkLookup(tables),
): CellPlan {
  const taken = new TakenValues(tables);
  const read = texts.map(({ record, column, text }): PlannedCell => {
    const before = (valueAt(plainRecord(record), column.path) ?? null) as FieldValue;
    const cell = { record, column, text, before };
    // A key is never taken away; a new record without one gets one of its name.
    if (column.path === 'key' && text.trim() === '') return { ...cell, after: before, outcome: 'unchanged', why: '' };
    const { value, fault } = readCell(column, text, links);
    if (fault !== undefined) return { ...cell, after: before, outcome: 'refused', why: fault };
    return {
      ...cell,
      after: value ?? null,
      outcome: equalJson(plainJson(value), plainJson(before)) ? 'unchanged' : 'changed',
      why: '',
    };
  });
  for (const { record, column, outcome } of read) if (outcome === 'changed') taken.release(record, column);
  const cells = read.map((cell): PlannedCell => {
    const other = cell.outcome === 'changed' ? taken.take(cell.record, cell.column, cell.after) : undefined;
    return other === undefined
      ? cell
      : { ...cell, after: cell.before, outcome: 'refused', why: `${other} has it too.` };
  });
  const counts: Record<CellOutcome, number> = { changed: 0, unchanged: 0, refused: 0 };
  for (const { outcome } of cells) counts[outcome] += 1;
  const operations = cells
    .filter(({ outcome }) => outcome === 'changed')
    .map(({ record, column, before, after }): Operation => ({
      document: RECORDS_DOCUMENT,
      kind,
      id: record.id,
      field: column.path,
      before: plainJson(before),
      after: plainJson(after),
    }));
  return { cells, counts, operations };
}

/** Text as the value of a column, checked. */
export function readCell(
  { path, field }: CellColumn,
  text: string,
  links: LinkLookup,
): { readonly value?: FieldValue; readonly fault?: string } {
  if (field.figure) return { fault: 'It is counted, not written.' };
  const given = path.startsWith('values.') ? text : text.trim();
  const read = readFieldText(field, path === 'purpose' ? currentPurpose(given) : given, links);
  if (read.fault !== undefined) return { fault: read.fault };
  if (read.value === null && field.required) return { fault: `${field.name} must be filled.` };
  const fault = path === 'key' ? keyFault(String(read.value)) : undefined;
  if (fault !== undefined) return { fault: `It ${fault}.` };
  const longest = LONGEST[path];
  if (longest !== undefined && typeof read.value === 'string' && read.value.length > longest)
    return { fault: `It is longer than ${longest} characters.` };
  // What every record has is text; empty is no value there.
  return { value: read.value === null && !path.startsWith('values.') ? '' : read.value };
}

/** Which values are taken, column by column, where no two may be the same: codes, and fields that are unique. */
class TakenValues {
  private readonly columns = new Map<string, Map<string, { readonly id: string; readonly name: string }>>();

  constructor(private readonly tables: Tables) {}

  /** A record is about to have another value there. */
  release(record: FilledRecord, column: CellColumn): void {
    const known = this.column(column);
    if (!known) return;
    const key = uniqueKey((valueAt(plainRecord(record), column.path) ?? null) as FieldValue);
    if (known.get(key)?.id === record.id) known.delete(key);
  }

  /** Takes a value for a record; gives the name of the other that has it. */
  take(record: FilledRecord, column: CellColumn, value: FieldValue): string | undefined {
    const known = this.column(column);
    if (!known || value === null || value === '') return undefined;
    const other = known.get(uniqueKey(value));
    if (other && other.id !== record.id) return other.name;
    known.set(uniqueKey(value), record);
    return undefined;
  }

  private column({ path, field }: CellColumn): Map<string, { readonly id: string; readonly name: string }> | undefined {
    if (path !== 'code' && path !== 'key' && !field.unique) return undefined;
    let column = this.columns.get(path);
    if (!column) {
      column = new Map();
      // Keys are unique over levels and kits, those in the bin too.
      if (path === 'key') {
        for (const record of [...Object.values(this.tables.level), ...Object.values(this.tables.kit)])
          column.set(uniqueKey(record.key), record);
        this.columns.set(path, column);
        return column;
      }
      for (const record of recordsOfField(this.tables, field)) {
        if ('binned' in record && record.binned !== null) continue;
        const value = (valueAt(plainRecord(record), path) ?? null) as FieldValue;
        if (value !== null && value !== '' && !column.has(uniqueKey(value))) column.set(uniqueKey(value), record);
      }
      this.columns.set(path, column);
    }
    return column;
  }
}
