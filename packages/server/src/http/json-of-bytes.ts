import { CoreError, MAX_JSON_DEPTH, isTooDeep, jsonOfText, type Json } from '@stravel/core';

export const TOO_DEEP_TEXT = `The request nests lists and tables deeper than ${MAX_JSON_DEPTH}.`;

/** Text of a body that is looked through before anything of it is read. @throws CoreError 'BODY_TOO_DEEP' */
export function textOfBytes(bytes: Uint8Array): string {
  if (isTooDeep(bytes)) throw new CoreError('BODY_TOO_DEEP', TOO_DEEP_TEXT);
  return new TextDecoder('utf-8').decode(bytes);
}

/** What a body holds. @throws CoreError 'BODY_TOO_DEEP' | 'BODY_NOT_JSON' */
export function jsonOfBytes(bytes: Uint8Array): Json {
  const text = textOfBytes(bytes);
  try {
    return jsonOfText(text);
  } catch (error) {
    throw new CoreError('BODY_NOT_JSON', `The request is not JSON: ${(error as Error).message}`, {}, { cause: error });
  }
}
