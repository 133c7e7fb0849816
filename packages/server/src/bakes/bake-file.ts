import { createHash } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { basename } from 'node:path';
import { gunzip, gzip } from 'node:zlib';
import { promisify } from 'node:util';
import { CoreError, bakeSpec, type BakeKind, type BakeResult, bakeOfPlain } from '@stravel/core';

/** Name of the file of some bytes: what was changed in it is seen. */
export function bakeFileName(bytes: Uint8Array): string {
  return `${createHash('sha256').update(bytes).digest('hex')}.json.gz`;
}

/** The bytes of a bake's file as they were written. @throws CoreError 'BAKE_UNREADABLE' where it is missing or was changed */
export async function readBakeBytes(path: string): Promise<Uint8Array> {
  const bytes = await readFile(path).catch(() => undefined);
  if (bytes && bakeFileName(bytes) === basename(path)) return bytes;
  throw new CoreError('BAKE_UNREADABLE', `bake: the file ${basename(path)} is missing or was changed`, {
    file: basename(path),
  });
}

/** The bake that a file holds. @throws CoreError 'BAKE_UNREADABLE' */
export async function readBakeFile<B extends BakeKind>(kind: B, path: string): Promise<BakeResult<B>> {
  const plain: unknown = JSON.parse((await promisify(gunzip)(await readBakeBytes(path))).toString('utf8'));
  const value = bakeOfPlain(kind, plain);
  if (value) return value;
  throw new CoreError('BAKE_UNREADABLE', `bake: the file ${basename(path)} holds no ${kind}`, { file: basename(path) });
}

/** A bake as it stands in its file. */
export async function bakeBytes<B extends BakeKind>(kind: B, result: BakeResult<B>): Promise<Uint8Array> {
  return promisify(gzip)(JSON.stringify(bakeSpec(kind).codec?.encode(result) ?? result));
}
