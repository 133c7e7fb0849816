import type { Schema } from 'yup';
import type { Patch } from '../../model/items';
import type { ItemSchemas } from '../stored-spec';

/** An added thing must be whole, a changed one holds field by field, a hidden one says nothing. */
export function holdsPatch({ kind, target, change, fields }: Patch, all: ItemSchemas): boolean {
  if (!all.local.includes(kind) || typeof fields !== 'object' || fields === null) return false;
  if (change === 'hidden') return Object.keys(fields).length === 0;
  const schema = all.of(kind);
  if (change === 'added') return fields['id'] === target && schema.isValidSync(fields, { strict: true });
  return Object.entries(fields).every(([field, value]) => {
    const one = Object.hasOwn(schema.fields, field) && field !== 'id' ? (schema.fields[field] as Schema) : undefined;
    return (
      one?.isValidSync(value === null && all.isOptional(kind, field) ? undefined : value, {
        strict: true,
      }) === true
    );
  });
}
