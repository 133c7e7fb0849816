import type { Conflict } from '@stravel/core';

/** An answer of the server that is not a success, in its own words. */
export class ProblemError extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    /** Filled at 409: what stands now. */
    readonly conflicts: readonly Conflict[] = [],
  ) {
    super(message);
  }
}

/** Reads an answer's problem (RFC 9457). */
export async function problemOf(response: Response): Promise<ProblemError> {
  const body = (await response.json().catch(() => ({}))) as { title?: string; detail?: string; conflicts?: Conflict[] };
  return new ProblemError(
    response.status,
    body.title ?? 'UNEXPECTED',
    body.detail ?? `The server answered ${response.status}.`,
    body.conflicts,
  );
}
