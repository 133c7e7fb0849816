import { HttpError } from './problem';

/** A whole number of an address. @throws HttpError 400 naming it */
export function wholeNumber(text: unknown, name: string): number {
  if (typeof text !== 'string' || !/^\d{1,15}$/.test(text)) {
    throw new HttpError(
      400,
      'QUERY_INVALID',
      `${name} must be a whole number, is ${JSON.stringify(text)?.slice(0, 100)}`,
    );
  }
  return Number(text);
}
