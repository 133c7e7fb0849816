import { CoreError, bakeSpec, type BakeRef } from '@stravel/core';

/** A fault of the level's content is no fault of the one who asks; anything else is. */
export function undefinedForFault(error: unknown): undefined {
  if (!(error instanceof CoreError)) throw error;
  return undefined;
}

export function missingFault({ kind, subject }: BakeRef): CoreError {
  return new CoreError('BAKE_MISSING', `bake: there is no ${bakeSpec(kind).words.one} of ${subject}`, { subject });
}

export function staleFault({ kind, subject }: BakeRef): CoreError {
  const message = `bake: the level has changed since this ${bakeSpec(kind).words.one} was made; bake again`;
  return new CoreError('BAKE_STALE', message, { subject });
}
