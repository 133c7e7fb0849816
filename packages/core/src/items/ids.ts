import type { RecordKind } from '../model/records';
import type { ItemKind } from '../model/items';

/** What an id leads to. */
export type IdTarget = ItemKind | RecordKind | 'item';

/** How an id is held. */
export interface IdUse {
  /** What it leads to; 'item' is any item of the level. */
  readonly to: IdTarget;
  /** Path of the field that has it: 'group', 'fields.piece'. */
  readonly field: string;
  /** Nothing may be kept that points at what is not there. */
  readonly isStrict: boolean;
}

/** Takes each id; gives the one that stands in its place. */
export type EachId = (id: string, use: IdUse) => string;

/** Goes over some fields of an item that are ids; absent ones, null and '' point at nothing. */
export function overIds<T extends object>(
  item: T,
  each: EachId,
  fields: { readonly [F in keyof T]?: { readonly to: IdTarget; readonly isStrict?: boolean } },
): T {
  let changed = item;
  for (const field of Object.keys(fields) as (keyof T & string)[]) {
    const use = fields[field];
    const id = item[field];
    if (!use || typeof id !== 'string' || id === '') continue;
    const after = each(id, { to: use.to, field, isStrict: use.isStrict === true });
    if (after !== id) changed = { ...changed, [field]: after };
  }
  return changed;
}
