import { plainJson, plainRecord } from '../json/plain-json';
import type { SchemaObject } from '../json/schema-parts';
import type { Item } from '../model/items';
import type { Json } from '../model/json';
import type { Placement } from '../model/placement';

/** How the items of a kind stand in the file of a packed level. */
export interface PackedForm<T> {
  /** Name of their list there. */
  readonly list: string;
  readonly of: (item: T) => Readonly<Record<string, Json>>;
  /** JSON Schemas of what `of` gives, by key. @param stored those of the item's fields as they are kept */
  readonly told: (stored: SchemaObject) => SchemaObject;
  /** Order of the list; absent: as the items come. */
  readonly compare?: (a: T, b: T) => number;
}

/** The form of items that are packed as they are kept, as far as a game needs their fields. */
export function pickedForm<T extends Item>(
  list: string,
  keys: readonly (keyof T & string)[],
  compare?: (a: T, b: T) => number,
): PackedForm<T> {
  return {
    list,
    of: (item) => {
      const fields = plainRecord<Item>(item);
      return Object.fromEntries(keys.map((key) => [key, fields[key]]));
    },
    told: (stored) => Object.fromEntries(keys.map((key) => [key, stored[key]])),
    ...(compare ? { compare } : {}),
  };
}

/** The values of a thing's own, where it has any. */
export function packedValues(values: Placement['values']): Record<string, Json> {
  return values ? { values: plainJson(values) } : {};
}

/** The group that a thing stands in, where it stands in one. */
export function packedGroup(group: string | null | undefined): Record<string, Json> {
  return group ? { group } : {};
}

/** Keys of a packed item that are left out where there is nothing to say. */
export const OPTIONAL_PACKED: readonly string[] = ['values', 'group'];
