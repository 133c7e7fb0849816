import { EDIT_LINES_TYPE, checkedEdit, type Edit } from '@stravel/core';
import express, { Router, type Request } from 'express';
import { MAX_BODY_BYTES, answerFault, isLongJson } from '../http/read-json';
import type { EditBytes } from './long-edit-tasks';
import type { ThreadPool } from '../jobs/thread-pool';

/** A longer edit would hold the loop while it is checked. */
const MAX_CHECKED_HERE_BYTES = 200000;

/** An edit of a request with what is known of it. */
export class ReceivedEdit {
  constructor(
    readonly edit: Edit,
    /** Whole records that were found sound already. */
    readonly sound: ReadonlySet<unknown> = new Set(),
  ) {}

  /** @throws CoreError 'EDIT_INVALID' */
  static of({ body }: Request): ReceivedEdit {
    return body instanceof ReceivedEdit ? body : new ReceivedEdit(checkedEdit(body));
  }
}

/** Reads edits that come as lines, or as long JSON, in a thread into `request.body`. */
export function readLongEdits(readers: ThreadPool): Router {
  const router = Router();
  router.post(
    '/collections/:collection/edits',
    express.raw({
      limit: MAX_BODY_BYTES,
      type: (request) => isLines(request) || isLongJson(request, MAX_CHECKED_HERE_BYTES),
    }),
    async (request, _response, next) => {
      const body: unknown = request.body;
      if (Buffer.isBuffer(body)) {
        const input: EditBytes = { bytes: new Uint8Array(body), isLines: isLines(request) };
        const { edit, sound } = await readers.run('read-edit', input).catch(answerFault);
        request.body = new ReceivedEdit(
          edit,
          new Set(edit.operations.flatMap(({ after }, i) => (sound[i] === 1 ? [after] : []))),
        );
      }
      next();
    },
  );
  return router;
}

function isLines({ headers }: { readonly headers: Request['headers'] }): boolean {
  return (headers['content-type'] ?? '').split(';')[0].trim().toLowerCase() === EDIT_LINES_TYPE;
}
