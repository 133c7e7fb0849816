/** What an error carries beside its text: plain data, so that it crosses worker and network borders whole. */
export type ErrorDetails = Readonly<Record<string, unknown>>;

/**
 * A broken contract or an unusable input. `message` reads `operation: rule, the offending value`;
 * `code` is stable and meant for programs.
 */
export class CoreError extends Error {
  override readonly name = 'CoreError';

  constructor(
    readonly code: string,
    message: string,
    readonly details: ErrorDetails = {},
    options?: { cause?: unknown },
  ) {
    super(message, options);
  }
}

/** The form in which an error crosses a worker's border. */
export interface PlainError {
  readonly code: string;
  readonly message: string;
  readonly details: ErrorDetails;
}

/** Turns anything thrown into plain data; a foreign error gets the code 'UNEXPECTED'. */
export function toPlainError(error: unknown): PlainError {
  if (error instanceof CoreError) {
    return { code: error.code, message: error.message, details: error.details };
  }
  return {
    code: 'UNEXPECTED',
    message: errorText(error),
    details: {},
  };
}

/** Rebuilds the error that `toPlainError` took apart. */
export function fromPlainError(plain: PlainError): CoreError {
  return new CoreError(plain.code, plain.message, plain.details);
}

/** What went wrong in words, whatever was thrown. */
export function errorText(error: unknown): string {
  return error instanceof Error ? error.message : String(error);
}
