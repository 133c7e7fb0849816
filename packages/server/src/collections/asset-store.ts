import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, statSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { CoreError } from '@stravel/core';
import { Stretches } from '../loop/stretches';
import { writeFileDurably } from './write-file';

/** So many bytes are hashed without a rest. */
const HASHED_AT_ONCE = 4 * 1024 * 1024;

/** Files named by the SHA-256 of their bytes. */
export class AssetStore {
  private readonly folder: string;

  constructor(dataFolder: string) {
    this.folder = join(dataFolder, 'assets');
    mkdirSync(this.folder, { recursive: true });
  }

  /** Keeps bytes; gives the name they can be had by. */
  async put(bytes: Uint8Array): Promise<string> {
    const hash = createHash('sha256');
    const stretches = new Stretches();
    for (let start = 0; start < bytes.length; start += HASHED_AT_ONCE) {
      hash.update(bytes.subarray(start, start + HASHED_AT_ONCE));
      await stretches.rest();
    }
    const name = hash.digest('hex');
    if (!existsSync(this.path(name))) await writeFileDurably(this.path(name), bytes);
    return name;
  }

  has(name: string): boolean {
    return /^[0-9a-f]{64}$/.test(name) && existsSync(this.path(name));
  }

  /** Size of an asset's file, 0 when there is none. */
  bytesOf(name: string): number {
    return this.has(name) ? statSync(this.path(name)).size : 0;
  }

  /** @throws CoreError 'ASSET_MISSING' */
  async get(name: string): Promise<Uint8Array> {
    try {
      const { buffer, byteOffset, byteLength } = await readFile(this.path(name));
      return new Uint8Array(buffer, byteOffset, byteLength);
    } catch (cause) {
      throw new CoreError('ASSET_MISSING', `asset: there is none named ${name}`, { name }, { cause });
    }
  }

  /** Where a file stands, for threads that read it themselves. @throws CoreError 'ASSET_MISSING' where it is not a name of one */
  path(name: string): string {
    if (!/^[0-9a-f]{64}$/.test(name))
      throw new CoreError('ASSET_MISSING', `asset: ${name} is not a name of one`, { name });
    return join(this.folder, name);
  }
}
