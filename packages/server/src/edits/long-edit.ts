import { EDIT_LINES_TYPE, checkedEdit, editOfLines, recordFaults, type Edit } from '@stravel/core';
import express, { Router, type Request } from 'express';
import { jsonOfBytes, textOfBytes } from '../http/json-of-bytes';
import { MAX_BODY_BYTES, answerFault, isLongJson } from '../http/read-json';
import type { ThreadPool } from '../jobs/thread-pool';

/** A longer edit would hold the loop while it is checked. */
const MAX_CHECKED_HERE_BYTES = 200000;

interface EditBytes {
  readonly bytes: Uint8Array;
  readonly isLines: boolean;
}

/** An edit as a thread has read and checked it. */
interface ReadEdit {
  readonly edit: Edit;
  /** Whether each operation puts a whole record that is sound by itself: 1 for yes. */
  readonly sound: Uint8Array;
}

/** What threads do with edits that come in long. */
export const LONG_EDIT_TASKS = {
  'read-edit': ({ bytes, isLines }: EditBytes): ReadEdit => {
    const edit = checkedEdit(isLines ? editOfLines(textOfBytes(bytes)) : jsonOfBytes(bytes));
    const sound = Uint8Array.from(edit.operations, ({ kind, id, field, after }) =>
      field === null &&
      after !== null &&
      (after as { id?: unknown }).id === id &&
      recordFaults(kind, after).length === 0
        ? 1
        : 0,
    );
    return { edit, sound };
  },
} as const;

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
        const { edit, sound } = await readers
          .run<(typeof LONG_EDIT_TASKS)['read-edit']>('read-edit', input)
          .catch(answerFault);
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
