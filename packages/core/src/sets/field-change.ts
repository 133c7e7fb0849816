import { plainJson } from '../json/plain-json';
import { equalJson } from '../document/equal-json';
import type { Operation } from '../document/operation';
import type { Field, FieldScalar, FieldValue } from '../model/field';
import { RECORDS_DOCUMENT, type RecordTables } from '../model/records';
import { recordsOfField, uniqueKey, valueOf, type FilledKind } from './field-tables';
import { fieldFault, fieldText, linkLookup, readFieldText } from './field-value';

/** How a value comes through a change of its field. */
export type ChangeOutcome =
  /** It stays as it is and fits. */
  | 'same'
  /** It is written in the new way. */
  | 'converted'
  /** It cannot be converted: it is kept as it is and found by the check until a person decides. */
  | 'kept'
  /** Nothing is filled, and the field now requires something. */
  | 'empty'
  /** Another has the same value, and the field is now unique. */
  | 'twice'
  /** It goes with the field. */
  | 'dropped';

/** What happens to one record's value. */
export interface ValueChange {
  readonly kind: FilledKind;
  readonly id: string;
  readonly name: string;
  readonly before: FieldValue;
  readonly after: FieldValue;
  readonly outcome: ChangeOutcome;
  /** Why, when it is kept, empty or twice. */
  readonly why: string;
}

/** All that a change of a field does. */
export interface FieldChange {
  readonly values: readonly ValueChange[];
  /** How many values come through in each way. */
  readonly counts: Readonly<Record<ChangeOutcome, number>>;
  /** One edit's worth: the field itself and every value that is written anew. */
  readonly operations: readonly Operation[];
}

export interface FieldChangeOptions {
  /** New words of choices by their old ones. */
  readonly renamedChoices?: ReadonlyMap<string, string>;
  /** Fills what is empty with the field's default. */
  readonly fillEmpty?: boolean;
}

type Tables = Pick<RecordTables, 'level' | 'set' | 'entry'>;

/**
 * What a change of a field would do to every value that it has. Nothing is lost unseen: a value that cannot be
 * converted is kept as it stands.
 * @param before the field as it is; null for a new one
 * @param after the field as it would be; null to delete it
 */
export function planFieldChange(
  tables: Tables,
  before: Field | null,
  after: Field | null,
  options: FieldChangeOptions = {},
): FieldChange {
  const field = after ?? before;
  if (!field) return { values: [], counts: emptyCounts(), operations: [] };
  const kind: FilledKind = field.register ? 'entry' : 'level';
  const links = linkLookup(tables);
  const holders = recordsOfField(tables, field);
  const planned = holders.map((record): ValueChange => {
    const old = before && !before.figure ? valueOf(record, before) : null;
    return { kind, id: record.id, name: record.name, before: old, ...convert(before, after, old, links, options) };
  });
  const values = after?.unique ? markTwice(planned) : planned;
  const counts = emptyCounts();
  for (const { outcome } of values) counts[outcome] += 1;
  return {
    values,
    counts,
    operations: [
      ...fieldOperations(before, after),
      ...values.flatMap((value) => valueOperations(value, before, after)),
    ],
  };
}

function emptyCounts(): Record<ChangeOutcome, number> {
  return { same: 0, converted: 0, kept: 0, empty: 0, twice: 0, dropped: 0 };
}

function convert(
  before: Field | null,
  after: Field | null,
  old: FieldValue,
  links: ReturnType<typeof linkLookup>,
  { renamedChoices, fillEmpty }: FieldChangeOptions,
): Pick<ValueChange, 'after' | 'outcome' | 'why'> {
  if (!after || after.figure) return { after: null, outcome: old === null ? 'same' : 'dropped', why: '' };
  if (old === null || old === '') {
    const value = fillEmpty && after.default !== undefined ? after.default : null;
    if (value !== null) return { after: value, outcome: 'converted', why: '' };
    return { after: old, outcome: after.required ? 'empty' : 'same', why: after.required ? 'It must be filled.' : '' };
  }
  const renamed = renamedChoices && after.type === 'choice' ? renameChoices(old, renamedChoices) : old;
  const fault = fieldFault(after, renamed, links);
  if (fault === null)
    return { after: renamed, outcome: equalJson(plainJson(renamed), plainJson(old)) ? 'same' : 'converted', why: '' };
  if (before) {
    const read = readFieldText(after, fieldText(before, renamed, links), links);
    if (read.fault === undefined && read.value !== null) return { after: read.value, outcome: 'converted', why: '' };
    if (read.fault !== undefined) return { after: old, outcome: 'kept', why: read.fault };
  }
  return { after: old, outcome: 'kept', why: fault };
}

function renameChoices(value: FieldValue, renamed: ReadonlyMap<string, string>): FieldValue {
  const one = <T extends FieldValue | FieldScalar>(scalar: T): T =>
    typeof scalar === 'string' ? ((renamed.get(scalar) ?? scalar) as T) : scalar;
  return Array.isArray(value) ? (value as readonly FieldScalar[]).map(one) : one(value);
}

/** The first to have a value stays; those after it are marked. */
function markTwice(values: readonly ValueChange[]): ValueChange[] {
  const first = new Map<string, string>();
  return values.map((change) => {
    if (change.after === null || change.after === '' || change.outcome === 'kept') return change;
    const key = uniqueKey(change.after);
    const other = first.get(key);
    if (other === undefined) {
      first.set(key, change.name);
      return change;
    }
    return { ...change, outcome: 'twice', why: `${other} has it too.` };
  });
}

function fieldOperations(before: Field | null, after: Field | null): Operation[] {
  const whole = { document: RECORDS_DOCUMENT, kind: 'field' as const, id: (after ?? before)?.id ?? '', field: null };
  if (!before || !after) return [{ ...whole, before: plainJson(before), after: plainJson(after) }];
  const names = [...new Set([...Object.keys(before), ...Object.keys(after)])] as (keyof Field)[];
  return names.flatMap((name) => {
    const [old, next] = [plainJson(before[name] ?? null), plainJson(after[name] ?? null)];
    return equalJson(old, next) ? [] : [{ ...whole, field: name, before: old, after: next }];
  });
}

function valueOperations(
  { kind, id, before: old, after: next }: ValueChange,
  before: Field | null,
  after: Field | null,
): Operation[] {
  const at = (key: string): Pick<Operation, 'document' | 'kind' | 'id' | 'field'> => ({
    document: RECORDS_DOCUMENT,
    kind,
    id,
    field: `values.${key}`,
  });
  if (before && after && before.key !== after.key) {
    if (old === null && next === null) return [];
    return [
      { ...at(before.key), before: plainJson(old), after: null },
      { ...at(after.key), before: null, after: plainJson(next) },
    ];
  }
  return equalJson(plainJson(old), plainJson(next))
    ? []
    : [{ ...at((after ?? before)?.key ?? ''), before: plainJson(old), after: plainJson(next) }];
}
