import type { RequestHandler } from 'express';
import { HttpError } from './problem';

/** Refuses addresses with a NUL, which no id has and at which SQLite ends text. */
export const onlyReadableAddress: RequestHandler = (request, _response, next) => {
  if (/%00|\0/.test(request.originalUrl))
    throw new HttpError(400, 'ADDRESS_UNREADABLE', 'The address has a NUL character.');
  next();
};
