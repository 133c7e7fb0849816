import type { IncomingMessage } from 'node:http';
import { CoreError } from '@stravel/core';
import express, { Router } from 'express';
import type { ThreadPool } from '../jobs/thread-pool';

import { HttpError } from './problem';
import { refuseDeep } from './refuse-deep';

/** Largest JSON request, bytes. */
export const MAX_BODY_BYTES = 32 * 1024 * 1024;
/** A longer one would hold the loop while it is read. */
const MAX_READ_HERE_BYTES = 1024 * 1024;

/** Reads the JSON bodies of requests into `request.body`; long ones in a thread. */
export function readJson(readers: ThreadPool): Router {
  const router = Router();
  router.use(
    express.raw({ limit: MAX_BODY_BYTES, type: (request) => isLongJson(request, MAX_READ_HERE_BYTES) }),
    async (request, _response, next) => {
      const body: unknown = request.body;
      if (Buffer.isBuffer(body)) request.body = await readers.run('read-json', new Uint8Array(body)).catch(answerFault);
      next();
    },
  );
  router.use(express.json({ limit: MAX_BODY_BYTES, verify: refuseDeep }));
  return router;
}

/** Whether a body is JSON of more than so many bytes; what is packed or of no known length may be. */
export function isLongJson({ headers }: IncomingMessage, bytes: number): boolean {
  const type = headers['content-type'] ?? '';
  const charset = /charset\s*=\s*"?([^";\s]*)/i.exec(type)?.[1].toLowerCase() ?? 'utf-8';
  if (!/^application\/json\s*(?:;|$)/i.test(type) || charset !== 'utf-8') return false;
  return headers['content-encoding'] !== undefined || !(Number(headers['content-length']) <= bytes);
}

/** What is wrong with a body is the sender's fault. */
export function answerFault(error: unknown): never {
  throw error instanceof CoreError && error.code.startsWith('BODY_')
    ? new HttpError(400, error.code, error.message)
    : error;
}
