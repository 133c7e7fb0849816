import { plainJson } from '../json/plain-json';
import type { Operation } from '../document/operation';
import type { Field, FieldScalar, FieldValue } from '../model/field';
import { RECORDS_DOCUMENT, type RecordTables } from '../model/records';
import { fieldsOf, recordsOfField, valueOf, type FilledKind, type FilledRecord } from './field-tables';
import { addToList } from './list-map';

/** One place that links to a level or an entry. */
export interface LinkUse {
  readonly kind: FilledKind;
  readonly record: FilledRecord;
  readonly field: Field;
}

type Tables = Pick<RecordTables, 'level' | 'set' | 'entry' | 'field' | 'register'>;

/** All links by what they lead to. A list that names one thing twice counts once. Cost: O(records x link fields). */
export function linkUses(tables: Tables): Map<string, LinkUse[]> {
  const uses = new Map<string, LinkUse[]>();
  for (const register of [null, ...Object.keys(tables.register)]) {
    const fields = fieldsOf(tables, register).filter(
      ({ type, figure }) => (type === 'level' || type === 'entry') && !figure,
    );
    if (fields.length === 0) continue;
    for (const record of recordsOfField(tables, { register })) {
      for (const field of fields) {
        for (const id of new Set(idsIn(valueOf(record, field)))) {
          const use: LinkUse = { kind: register === null ? 'level' : 'entry', record, field };
          addToList(uses, id, use);
        }
      }
    }
  }
  return uses;
}

function idsIn(value: FieldValue): string[] {
  if (typeof value === 'string') return [value];
  return Array.isArray(value)
    ? (value as readonly FieldScalar[]).filter((one): one is string => typeof one === 'string')
    : [];
}

/** Operations that lead links elsewhere. @param to the new end, null to clear the links */
export function redirectLinks(uses: readonly LinkUse[], from: string, to: string | null): Operation[] {
  return uses.map(({ kind, record, field }) => {
    const before = valueOf(record, field);
    return {
      document: RECORDS_DOCUMENT,
      kind,
      id: record.id,
      field: `values.${field.key}`,
      before: plainJson(before),
      after: plainJson(redirected(before, from, to)),
    };
  });
}

function redirected(value: FieldValue, from: string, to: string | null): FieldValue {
  if (!Array.isArray(value)) return value === from ? to : value;
  const list = (value as readonly FieldScalar[]).flatMap((one) => (one === from ? (to === null ? [] : [to]) : [one]));
  return list.filter((one, i) => one !== to || list.indexOf(one) === i);
}
