import { HEAD_BYTES, fileFault, type FormatId } from '@stravel/core';

/** Why a file that a person chose is not one of those that are wanted, and what to do; undefined when it is. */
export async function faultOfFile(file: File, wanted: readonly FormatId[]): Promise<string | undefined> {
  const head = new Uint8Array(await file.slice(0, HEAD_BYTES).arrayBuffer());
  return fileFault({ name: file.name, bytes: file.size, head }, wanted);
}
