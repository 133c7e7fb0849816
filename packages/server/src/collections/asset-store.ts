import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, statSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { CoreError } from '@stravel/core';
import { writeFileDurably } from './write-file';

/** Files named by the SHA-256 of their bytes. */
export class AssetStore {
  private readonly folder: string;

  constructor(dataFolder: string) {
    this.folder = join(dataFolder, 'assets');
    mkdirSync(this.folder, { recursive: true });
  }

  /** Keeps bytes; gives the name they can be had by. */
  async put(bytes: Uint8Array): Promise<string> {
    const name = createHash('sha256').update(bytes).digest('hex');
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
      return new Uint8Array(await readFile(this.path(name)));
    } catch (cause) {
      throw new CoreError('ASSET_MISSING', `asset: there is none named ${name}`, { name }, { cause });
    }
  }

  private path(name: string): string {
    if (!/^[0-9a-f]{64}$/.test(name)) throw new CoreError('ASSET_MISSING', `asset: ${name} is not a name of one`, { name });
    return join(this.folder, name);
  }
}
