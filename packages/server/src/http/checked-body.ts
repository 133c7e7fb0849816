import { ValidationError, type AnyObjectSchema, type InferType } from 'yup';
import { HttpError } from './problem';

/** A request's body, checked: nothing unknown, text trimmed where the schema says so. @throws HttpError 400 naming each fault */
export function checkedBody<S extends AnyObjectSchema>(schema: S, body: unknown, what: string): InferType<S> {
  const refuse = (faults: readonly string[]): HttpError =>
    new HttpError(400, `${what.toUpperCase()}_INVALID`, `${what}: ${faults.slice(0, 5).join('; ')}`);
  // Yup leaves unknown fields out of what it trims, without a word.
  const unknown = Object.keys(body ?? {}).filter((key) => !Object.hasOwn(schema.fields, key));
  if (unknown.length > 0)
    throw refuse([`has an unknown field ${unknown[0]}; known are ${Object.keys(schema.fields).join(', ')}`]);
  try {
    return schema.validateSync(body, { abortEarly: false }) as InferType<S>;
  } catch (error) {
    // What stands in for text may fail while it is read as text.
    throw refuse(error instanceof ValidationError ? error.errors : ['has a value that cannot be read']);
  }
}
