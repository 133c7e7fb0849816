import { boolean, object, string } from 'yup';
import { HttpError } from '../http/problem';

/** What the page asks of a pack. */
export interface PackRequest {
  /** Name of a folder below the packs of the collection. */
  readonly folder: string;
  readonly withAllPurposes: boolean;
}

const shape = object({
  folder: string()
    .required()
    .matches(/^[A-Za-z0-9][A-Za-z0-9 _-]{0,59}$/, 'must be 1 to 60 letters, digits, spaces, dashes or underscores'),
  withAllPurposes: boolean().required(),
})
  .noUnknown()
  .strict()
  .required();

/** @throws HttpError 400 naming the field and what it must be */
export function checkedPackRequest(body: unknown): PackRequest {
  try {
    return shape.validateSync(body);
  } catch (error) {
    throw new HttpError(400, 'PACK_REQUEST', `The request to pack cannot be taken: ${error instanceof Error ? error.message : String(error)}.`);
  }
}
