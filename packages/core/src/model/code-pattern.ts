/** How codes are made. */
export interface CodePattern {
  /** Characters that a code is made of, each once, without regard to case. */
  readonly alphabet: string;
  readonly length: number;
}

/** Characters that are easily taken for another. */
export const LOOK_ALIKES = '0O1IL';

/** Capitals and digits without look-alike characters. */
export const DEFAULT_CODE_PATTERN: CodePattern = { alphabet: 'ABCDEFGHJKMNPQRSTUVWXYZ23456789', length: 5 };
