import type { Json } from '../model/json';

/** What JSON can hold, of a type with known fields. What holds anything else, such as a map or a function, is none. */
export type Plain<T> = T extends string | number | boolean | null | undefined
  ? T
  : T extends readonly (infer Member)[]
    ? readonly Plain<Member>[]
    : T extends
          ReadonlyMap<unknown, unknown> | ReadonlySet<unknown> | ArrayBufferView | ((...parameters: never[]) => unknown)
      ? never
      : T extends object
        ? { readonly [F in keyof T]: Plain<T[F]> }
        : never;

/** A value as JSON: types with known fields do not compile as such, as they have no index. */
export function plainJson<T>(value: T & Plain<T>): Json {
  // The type of the parameter has said it.
  return value as unknown as Json;
}

/** A record as a table of JSON. */
export function plainRecord<T extends object>(value: T & Plain<T>): { readonly [field: string]: Json } {
  return value as unknown as { readonly [field: string]: Json };
}

/** The same where there may be none. */
export function plainRecordIfAny<T extends object>(
  value: (T & Plain<T>) | undefined,
): { readonly [field: string]: Json } | undefined {
  return value && plainRecord<T>(value);
}
