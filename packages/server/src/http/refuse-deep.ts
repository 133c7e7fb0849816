import type { IncomingMessage, ServerResponse } from 'node:http';
import { MAX_JSON_DEPTH, isTooDeep } from '@stravel/core';
import { HttpError } from './problem';

/** Refuses a body whose lists and tables nest too deep, before it is read. */
export function refuseDeep(_request: IncomingMessage, _response: ServerResponse, body: Buffer): void {
  if (isTooDeep(body)) throw new HttpError(400, 'BODY_TOO_DEEP', `The request nests lists and tables deeper than ${MAX_JSON_DEPTH}.`);
}
