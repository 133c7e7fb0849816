import { finding, type Finding } from '../findings';
import type { Field } from '../model/field';
import type { RecordTables } from '../model/records';
import { fieldsOf, recordsOfField, uniqueKey, valueOf, type FilledRecord } from './field-tables';
import { fieldFault, linkLookup } from './field-value';

type Tables = Pick<RecordTables, 'level' | 'set' | 'entry' | 'field' | 'register'>;

/** Values that do not fit their fields: kept through a change, left empty, or the same where each must differ. Levels in the bin are left out. */
export function fieldFindings(tables: Tables): Finding[] {
  const links = linkLookup(tables);
  return [null, ...Object.keys(tables.register)].flatMap((register) => {
    const fields = fieldsOf(tables, register).filter(({ figure }) => !figure);
    const records = recordsOfField(tables, { register }).filter(
      (record) => !('binned' in record) || record.binned === null,
    );
    return fields.flatMap((field) => {
      const firsts = new Map<string, string>();
      return records.flatMap((record) => {
        const value = valueOf(record, field);
        if (value === null || value === '')
          return field.required
            ? [found(field, record, 'FIELD_EMPTY', `${record.name} has no ${field.name}`, 'The field is required.')]
            : [];
        const fault = fieldFault(field, value, links);
        if (fault !== null)
          return [
            found(
              field,
              record,
              'FIELD_MISFIT',
              `${field.name} of ${record.name}: ${fault}`,
              'The value is kept until someone decides what it should be.',
            ),
          ];
        if (!field.unique) return [];
        const other = firsts.get(uniqueKey(value));
        if (other === undefined) {
          firsts.set(uniqueKey(value), record.name);
          return [];
        }
        return [
          found(
            field,
            record,
            'FIELD_TWICE',
            `${record.name} has the same ${field.name} as ${other}`,
            'The field is unique.',
          ),
        ];
      });
    });
  });
}

function found(field: Field, record: FilledRecord, code: string, message: string, why: string): Finding {
  const place = field.register
    ? { register: field.register, entry: record.id, field: field.id }
    : { level: record.id, field: field.id };
  return finding({
    code,
    desk: 'sets',
    severity: code === 'FIELD_EMPTY' ? 'warning' : 'error',
    subject: `${record.id}.${field.id}`,
    place,
    message,
    why,
  });
}
