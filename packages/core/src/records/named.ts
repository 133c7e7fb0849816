import type { EachId, IdUse } from '../items/ids';
import type { RecordTables } from '../model/records';

/** Calls a record by its name: 'the level Sump'. */
export function calledBy(noun: string): (record: { readonly name: string }) => string {
  return ({ name }) => `the ${noun} ${name}`;
}

/** Name of a level, its id where it is gone. */
export function levelName({ level }: RecordTables, id: string): string {
  return Object.hasOwn(level, id) ? level[id].name : id;
}

/** Goes over a list of ids; the same list back where all stay. */
export function overList(ids: readonly string[], each: EachId, use: IdUse): readonly string[] {
  const after = ids.map((id) => each(id, use));
  return after.every((id, i) => id === ids[i]) ? ids : after;
}

/** Goes over ids within a list of records; the same list back where all stay. */
export function overRows<T>(rows: readonly T[], of: (row: T) => T): readonly T[] {
  const after = rows.map(of);
  return after.every((row, i) => row === rows[i]) ? rows : after;
}
