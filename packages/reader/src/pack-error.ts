/** What is wrong with a pack, or with what was asked of it. */
export type PackErrorCode =
  /** A file cannot be read. */
  | 'FILE_MISSING'
  /** A file is not JSON. */
  | 'NOT_JSON'
  /** A file is of another format, or of a version that this reader does not know. */
  | 'FORMAT'
  /** A field is missing, or is not what it must be. */
  | 'FIELD'
  /** A file of columns is shorter than its table says. */
  | 'COLUMNS'
  /** There is no level, chunk or piece of that name. */
  | 'UNKNOWN'
  /** A level was played that is not open. */
  | 'LOCKED';

/** An error that says in which file, and where in it. */
export class PackError extends Error {
  override readonly name = 'PackError';

  /**
   * @param file path within the pack; '' where it is about none
   * @param path of the field in that file, such as `chunks.2.columns.file`; '' for the whole file
   */
  constructor(
    readonly code: PackErrorCode,
    readonly file: string,
    readonly path: string,
    rule: string,
    cause?: unknown,
  ) {
    super([file, path, rule].filter((part) => part !== '').join(': '), { cause });
  }
}
