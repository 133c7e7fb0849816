import type { IncomingMessage, ServerResponse } from 'node:http';
import { isTooDeep } from '@stravel/core';
import { TOO_DEEP_TEXT } from './json-of-bytes';
import { HttpError } from './problem';

/** Refuses a body whose lists and tables nest too deep, before it is read. */
export function refuseDeep(_request: IncomingMessage, _response: ServerResponse, body: Buffer): void {
  if (isTooDeep(body)) throw new HttpError(400, 'BODY_TOO_DEEP', TOO_DEEP_TEXT);
}
