import { errorText } from '@stravel/core';
import { array, boolean, object, string } from 'yup';
import { HttpError } from '../http/problem';

/** What the page asks of a pack. */
export interface PackRequest {
  /** Name of a folder below the packs of the collection. */
  readonly folder: string;
  readonly withAllPurposes: boolean;
  /** Keys of levels that are left out. */
  readonly without?: readonly string[];
}

/** Most levels that one request leaves out. */
const MAX_WITHOUT = 10000;
const KEY = /^[a-z0-9-]{1,100}$/;

const shape = object({
  folder: string()
    .required()
    .matches(/^[A-Za-z0-9][A-Za-z0-9 _-]{0,59}$/, 'must be 1 to 60 letters, digits, spaces, dashes or underscores'),
  withAllPurposes: boolean().required(),
  without: array().of(string().required().matches(KEY, 'must be keys of levels')).max(MAX_WITHOUT),
})
  .noUnknown()
  .strict()
  .required();

/** @throws HttpError 400 naming the field and what it must be */
export function checkedPackRequest(body: unknown): PackRequest {
  try {
    const { folder, withAllPurposes, without = [] } = shape.validateSync(body);
    // In one order, so that equal requests make one job.
    return { folder, withAllPurposes, without: [...new Set(without)].sort() };
  } catch (error) {
    throw new HttpError(400, 'PACK_REQUEST', `The request to pack cannot be taken: ${errorText(error)}.`);
  }
}

/** Keys from an address, with commas between them. @throws HttpError 400 */
export function keysFromAddress(text: unknown): string[] {
  if (text === undefined || text === '') return [];
  const keys = typeof text === 'string' ? text.split(',') : [];
  if (keys.length === 0 || keys.length > MAX_WITHOUT || !keys.every((key) => KEY.test(key)))
    throw new HttpError(400, 'PACK_REQUEST', 'Levels to leave out must be keys, separated by commas.');
  return keys;
}
