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

/** The fields of a kind that are ids, each with how it is held. Made once a kind. */
export type IdUses<T> = readonly (IdUse & { readonly field: keyof T & string })[];

/** @param fields what each leads to */
export function idUses<T extends object>(fields: {
  readonly [F in keyof T]?: { readonly to: IdTarget; readonly isStrict?: boolean };
}): IdUses<T> {
  return (Object.keys(fields) as (keyof T & string)[]).flatMap((field) => {
    const use = fields[field];
    return use ? [{ field, to: use.to, isStrict: use.isStrict === true }] : [];
  });
}

/** Goes over some fields of an item that are ids; absent ones, null and '' point at nothing. */
export function overIds<T extends object, I extends Partial<T>>(item: I, each: EachId, uses: IdUses<T>): I {
  let changed = item;
  for (const use of uses) {
    const id = item[use.field];
    if (typeof id !== 'string' || id === '') continue;
    const after = each(id, use);
    if (after !== id) changed = { ...changed, [use.field]: after };
  }
  return changed;
}
