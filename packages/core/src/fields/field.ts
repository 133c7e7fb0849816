import {
  array,
  boolean,
  lazy,
  mixed,
  number,
  object,
  string,
  tuple,
  type AnyObjectSchema,
  type MixedSchema,
  type Schema,
} from 'yup';
import { isJsonTable, type Json } from '../model/json';

declare const TYPE: unique symbol;

/** A schema that words what is wrong with a value, and a check that only says whether it is sound. */
export interface Checked {
  readonly yup: Schema;
  /** The same verdict as the schema's, without the words. */
  readonly check: (value: unknown) => boolean;
}

/** How one value is described. */
export interface Field<T> extends Checked {
  readonly [TYPE]?: (value: T) => T;
}

/** A field that a record may lack. */
export interface OptionalField<T> extends Field<T> {
  readonly isOptional: true;
}

/** A field for each of a type: one that is forgotten, mistyped or wrongly optional does not compile. */
export type Fields<T> = {
  readonly [F in keyof T]-?: undefined extends T[F]
    ? OptionalField<Exclude<T[F], undefined>>
    : Field<T[F]> & { readonly isOptional?: never };
};

/** A table of fields, and nothing beside them. */
export interface Shape<T> extends Field<T> {
  readonly yup: AnyObjectSchema;
  readonly fields: Readonly<Record<string, Checked>>;
}

/** One thing that must hold for a value that is sound otherwise. */
export interface Rule<T> {
  readonly name: string;
  readonly message: string;
  readonly holds: (value: T) => boolean;
}

const isAbsent = (value: unknown): boolean => value === undefined || value === null;

/** A field by its check, and by how its schema is made: that costs much and only a fault asks for it, so it is made then. */
export function made<S extends Schema, const M extends object>(
  check: Checked['check'],
  make: () => S,
  more: M = {} as M,
): NoInfer<M> & { readonly check: Checked['check']; readonly yup: NoInfer<S> } {
  let schema: S | undefined;
  return {
    ...more,
    check,
    get yup() {
      return (schema ??= make());
    },
  };
}

/** The field with rules over the whole of it; absent values are none of theirs. */
export function ruled<T>(field: Field<T>, ...rules: readonly Rule<T>[]): Field<T> {
  const { check } = field;
  return made(
    (value) => check(value) && (isAbsent(value) || rules.every(({ holds }) => holds(value as T))),
    () => withRules(field, rules),
  );
}

function withRules<T>({ yup, check }: Field<T>, rules: readonly Rule<T>[]): Schema {
  return rules.reduce<Schema>(
    (schema, { name, message, holds }) =>
      // Where its parts are at fault that is said already, and a rule may count on them.
      schema.test(name, message, (value: unknown) => isAbsent(value) || !check(value) || holds(value as T)),
    yup,
  );
}

export interface TextLimits {
  /** Fewest letters. */
  readonly min?: number;
  /** Must not be empty, where nothing is said of the fewest letters. */
  readonly isFilled?: true;
  readonly max?: number;
  readonly pattern?: { readonly matches: RegExp; readonly message: string };
}

/** A text. */
export function text({ min, isFilled, max, pattern }: TextLimits = {}): Field<string> {
  const fewest = min ?? (isFilled ? 1 : 0);
  const most = max ?? Infinity;
  const check = (value: unknown): boolean =>
    typeof value === 'string' &&
    value.length >= fewest &&
    value.length <= most &&
    (pattern === undefined || pattern.matches.test(value));
  return made(check, () => {
    let yup = fewest > 0 ? string().required() : string().defined();
    if (min !== undefined) yup = yup.min(min);
    if (max !== undefined) yup = yup.max(max);
    return pattern ? yup.matches(pattern.matches, pattern.message) : yup;
  });
}

/** One of some words. */
export function oneOf<const W extends string>(words: readonly W[]): Field<W> {
  const known = new Set<unknown>(words);
  return made(
    (value) => known.has(value) && value !== '',
    () => string().required().oneOf(words),
  );
}

/** One of some numbers. */
export function oneOfNumbers<const N extends number>(numbers: readonly N[]): Field<N> {
  const known = new Set<unknown>(numbers);
  return made(
    (value) => known.has(value),
    () => number().required().oneOf(numbers),
  );
}

/** A finite number within a range. */
export function finite(low = -Infinity, high = Infinity): Field<number> {
  const check = (value: unknown): boolean =>
    typeof value === 'number' && value >= low && value <= high && Number.isFinite(value);
  return made(check, () => {
    let yup = number().required();
    if (low !== -Infinity) yup = yup.min(low);
    if (high !== Infinity) yup = yup.max(high);
    return yup.test('finite', 'must be a finite number', (value) => isAbsent(value) || Number.isFinite(value));
  });
}

/** A whole number within a range. */
export function whole(low: number, high = Infinity): Field<number> {
  const check = (value: unknown): boolean =>
    Number.isInteger(value) && (value as number) >= low && (value as number) <= high;
  return made(check, () => {
    const yup = number().required().integer().min(low);
    return high === Infinity ? yup : yup.max(high);
  });
}

/** Yes or no. */
export function flag(): Field<boolean> {
  return made(
    (value) => typeof value === 'boolean',
    () => boolean().required(),
  );
}

/** A list of so many of one kind. */
export function list<T>(
  of: Field<T>,
  { min, max }: { readonly min?: number; readonly max?: number } = {},
): Field<readonly T[]> {
  const [fewest, most] = [min ?? 0, max ?? Infinity];
  const check = (value: unknown): boolean =>
    Array.isArray(value) && value.length >= fewest && value.length <= most && value.every(of.check);
  return made(check, () => {
    let yup = array()
      .of(of.yup as MixedSchema)
      .required();
    if (min !== undefined) yup = yup.min(min);
    return max === undefined ? yup : yup.max(max);
  });
}

/** A list of exactly these. */
export function row<T extends readonly unknown[]>(
  ...fields: { readonly [I in keyof T]: Field<T[I]> }
): Field<Readonly<T>> {
  const checks = fields.map(({ check }) => check);
  const check = (value: unknown): boolean =>
    Array.isArray(value) && value.length === checks.length && checks.every((one, i) => one(value[i]));
  return made(check, () => tuple(fields.map(({ yup }) => yup) as unknown as [MixedSchema]).required());
}

/** Something told by a predicate alone. @param jsonSchema how it is told of in the published schema */
export function told<T>(jsonSchema: Json, { name, message, holds }: Rule<unknown>): Field<T> {
  return made(
    (value) => !isAbsent(value) && holds(value),
    () =>
      mixed()
        .required()
        .meta({ jsonSchema })
        .test(name, message, (value) => isAbsent(value) || holds(value)),
  );
}

/** One of several tables, told apart by the word in one of their fields. @param shapes one for each word */
export function choice<T extends object, B extends keyof T & string>(
  by: B,
  shapes: { readonly [W in T[B] & string]: Field<Extract<T, { readonly [P in B]: W }>> },
  jsonSchema: Json,
  rule: { readonly name: string; readonly message: string },
): Field<T> {
  const byWord: ReadonlyMap<unknown, Checked> = new Map(Object.entries(shapes as Readonly<Record<string, Checked>>));
  return told(jsonSchema, {
    ...rule,
    holds: (value) => isJsonTable(value) && byWord.get(value[by])?.check(value) === true,
  });
}

/** A table of fields, strict: nothing unknown, nothing coerced. */
export function shape<T extends object>(fields: Fields<T>, ...rules: readonly Rule<T>[]): Shape<T> {
  const parts = Object.entries(fields as Readonly<Record<string, Checked>>);
  const own = Object.fromEntries(parts);
  const checks = parts.map(([name, { check }]) => [name, check] as const);
  const known = new Set(Object.keys(own));
  const plain = made(
    (value) => {
      if (!isJsonTable(value)) return false;
      for (const name of Object.keys(value)) if (!known.has(name)) return false;
      for (const [name, check] of checks) if (!check(value[name])) return false;
      return true;
    },
    () =>
      object(Object.fromEntries(parts.map(([name, { yup }]) => [name, yup])))
        .noUnknown()
        .strict()
        .required() as AnyObjectSchema,
  );
  const whole = ruled<T>(plain, ...rules);
  return made(whole.check, () => whole.yup as AnyObjectSchema, { fields: own });
}

/** One of several tables of fields, told apart by the word in one of them. Where there is but one, it is that. */
export function variants<T extends object>(by: string, shapes: ReadonlyMap<string, Shape<T>>): Shape<T> {
  const all = [...shapes.values()];
  const [first] = all;
  if (all.length === 1) return first;
  const of = (value: unknown): Shape<T> | undefined =>
    isJsonTable(value) && typeof value[by] === 'string' ? shapes.get(value[by]) : undefined;
  const words = oneOf([...shapes.keys()]);
  const fields = new Map<string, readonly Checked[]>();
  for (const one of all)
    for (const [name, field] of Object.entries(one.fields)) fields.set(name, [...(fields.get(name) ?? []), field]);
  const schema = (): AnyObjectSchema => {
    const unknown = object({ [by]: words.yup });
    const chosen = lazy((value: unknown) => of(value)?.yup ?? unknown);
    return chosen.meta({ anyOf: all.map(({ yup }) => yup.describe()) }) as unknown as AnyObjectSchema;
  };
  const own = [...fields].map(([name, some]) => {
    const check = (value: unknown): boolean => some.some((one) => one.check(value));
    return [name, made(check, () => some[0].yup)] as const;
  });
  return made((value) => of(value)?.check(value) === true, schema, { fields: Object.fromEntries(own) });
}

/** Must be there, but may be nothing. */
export function orNull<T>(field: Field<T>): Field<T | null> {
  return made(
    (value) => value === null || field.check(value),
    () => (field.yup as MixedSchema).nullable().defined(),
  );
}

/** Came after the first records were kept: may be absent, or nothing. */
export function later<T>(field: Field<T>): OptionalField<T | null> {
  return made(
    (value) => isAbsent(value) || field.check(value),
    () => (field.yup as MixedSchema).nullable().optional().default(undefined),
    { isOptional: true },
  );
}

/** May be absent, but is never nothing. */
export function orAbsent<T>(field: Field<T>): OptionalField<T> {
  return made(
    (value) => value === undefined || field.check(value),
    () => (field.yup as MixedSchema).optional(),
    { isOptional: true },
  );
}
