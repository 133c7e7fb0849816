import { isJsonTable } from '../../model/json';
import type { ItemShapes } from '../stored-spec';

/** What tells of a patch what it does. */
interface PatchedPart {
  readonly kind?: unknown;
  readonly target?: unknown;
  readonly change?: unknown;
  readonly fields?: unknown;
}

/** An added thing must be whole, a changed one holds field by field, a hidden one says nothing. */
export function holdsPatch({ kind: word, target, change, fields }: PatchedPart, all: ItemShapes): boolean {
  const kind = all.local.find((one) => one === word);
  if (kind === undefined || !isJsonTable(fields)) return false;
  if (change === 'hidden') return Object.keys(fields).length === 0;
  const shape = all.of(kind);
  if (change === 'added') return fields['id'] === target && shape.check(fields);
  return Object.entries(fields).every(([field, value]) => {
    const one = Object.hasOwn(shape.fields, field) && field !== 'id' ? shape.fields[field] : undefined;
    return one?.check(value === null && all.isOptional(kind, field) ? undefined : value) === true;
  });
}
