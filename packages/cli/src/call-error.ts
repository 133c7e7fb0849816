/** A command that ends with an exit code of its own. */
export class CallError extends Error {
  constructor(
    message: string,
    readonly exitCode: number,
  ) {
    super(message);
  }
}
