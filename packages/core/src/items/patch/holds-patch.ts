import type { Patch } from '../../model/items';
import type { ItemShapes } from '../stored-spec';

/** An added thing must be whole, a changed one holds field by field, a hidden one says nothing. */
export function holdsPatch({ kind, target, change, fields }: Patch, all: ItemShapes): boolean {
  if (!all.local.includes(kind) || typeof fields !== 'object' || fields === null) return false;
  if (change === 'hidden') return Object.keys(fields).length === 0;
  const shape = all.of(kind);
  if (change === 'added') return fields['id'] === target && shape.check(fields);
  return Object.entries(fields).every(([field, value]) => {
    const one = Object.hasOwn(shape.fields, field) && field !== 'id' ? shape.fields[field] : undefined;
    return one?.check(value === null && all.isOptional(kind, field) ? undefined : value) === true;
  });
}
