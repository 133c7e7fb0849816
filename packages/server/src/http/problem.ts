import { CoreError } from '@stravel/core';
import type { ErrorRequestHandler } from 'express';
import { EditConflict } from '../edits/edit-conflict';

/** An error that a handler answers with on purpose. */
export class HttpError extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly details: Readonly<Record<string, unknown>> = {},
  ) {
    super(message);
  }
}

interface Problem {
  readonly status: number;
  readonly code: string;
  readonly detail: string;
  readonly extra?: Readonly<Record<string, unknown>>;
}

/** Turns every error into application/problem+json (RFC 9457). No stack leaves the server. */
export const answerProblem: ErrorRequestHandler = (error: unknown, request, response, next) => {
  if (response.headersSent) {
    next(error);
    return;
  }
  const problem = toProblem(error);
  if (problem.status >= 500) request.log.error({ err: error }, 'request failed');
  response
    .status(problem.status)
    .type('application/problem+json')
    .send(
      JSON.stringify({
        type: `urn:stravel:problem:${problem.code}`,
        title: problem.code,
        status: problem.status,
        detail: problem.detail,
        requestId: request.id,
        ...problem.extra,
      }),
    );
};

function toProblem(error: unknown): Problem {
  if (error instanceof HttpError) {
    return { status: error.status, code: error.code, detail: error.message, extra: { details: error.details } };
  }
  if (error instanceof EditConflict) {
    return { status: 409, code: 'EDIT_CONFLICT', detail: error.message, extra: { conflicts: error.conflicts } };
  }
  if (error instanceof CoreError) {
    return { status: 422, code: error.code, detail: error.message, extra: { details: error.details } };
  }
  return (
    storageProblem(error) ??
    requestProblem(error) ?? {
      status: 500,
      code: 'UNEXPECTED',
      detail: 'The server failed unexpectedly; its log has the reason under this request id.',
    }
  );
}

/** Trouble with the disk under the database, told apart because the person can mend it. */
function storageProblem(error: unknown): Problem | undefined {
  const code = deepCode(error);
  if (code === 'SQLITE_FULL' || code === 'ENOSPC') {
    return {
      status: 507,
      code: 'DISK_FULL',
      detail: 'The disk is full: nothing of this change was saved. Free some space and try again.',
    };
  }
  if (code === 'SQLITE_READONLY' || code === 'EROFS' || code === 'EACCES') {
    return {
      status: 503,
      code: 'DATA_READ_ONLY',
      detail: 'The data folder cannot be written: nothing of this change was saved. Make it writable and try again.',
    };
  }
  if (code === 'SQLITE_CORRUPT' || code === 'SQLITE_NOTADB' || code === 'SQLITE_IOERR') {
    return {
      status: 503,
      code: 'DATA_UNSOUND',
      detail: `The database file cannot be used (${code}): nothing of this change was saved.`,
    };
  }
  return undefined;
}

function deepCode(error: unknown): string | undefined {
  if (typeof error !== 'object' || error === null) return undefined;
  const { code, original, parent } = error as { code?: unknown; original?: unknown; parent?: unknown };
  return deepCode(original) ?? deepCode(parent) ?? (typeof code === 'string' ? code : undefined);
}

/** What Express, its router and its body readers throw for a request that they cannot read: errors that carry a status. */
function requestProblem(error: unknown): Problem | undefined {
  if (typeof error !== 'object' || error === null) return undefined;
  const { type, status, message } = error as { type?: unknown; status?: unknown; message?: unknown };
  if (type === 'entity.too.large')
    return { status: 413, code: 'BODY_TOO_LARGE', detail: `The request is too large: ${String(message)}` };
  if (type === 'entity.parse.failed')
    return { status: 400, code: 'BODY_NOT_JSON', detail: `The request is not JSON: ${String(message)}` };
  if (typeof status !== 'number' || status < 400 || status > 499) return undefined;
  return { status, code: 'REQUEST_UNREADABLE', detail: `The request cannot be read: ${String(message)}` };
}
