import { createHash } from 'node:crypto';
import { access, constants, mkdir, readFile, readdir, rename, rm, rmdir, stat } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { CoreError, MANIFEST_PATH, manifestPaths, type PackFile, type PackedFile } from '@stravel/core';
import { writeFileDurably } from '../collections/write-file';

/** Where changed files wait until all are there. */
const STAGING = '.stravel-staging';

/** What became of the files of a pack. */
export interface PackWritten {
  readonly written: readonly string[];
  readonly unchanged: number;
  readonly removed: readonly string[];
}

/**
 * A folder that a pack goes into. Changed files wait beside until all are made; then they take their places and the manifest
 * is written last, so that a pack which broke off leaves the one before as it was.
 */
export class PackFolder {
  private readonly files: PackedFile[] = [];
  private readonly changed: string[] = [];

  private constructor(
    private readonly folder: string,
    /** Paths of the files of the pack that is there. */
    private readonly earlier: readonly string[],
  ) {}

  /** @throws CoreError 'PACK_FOLDER' naming the folder: it is no folder, cannot be written, or holds something that is no pack */
  static async open(folder: string): Promise<PackFolder> {
    const fail = (rule: string, cause?: unknown): CoreError =>
      new CoreError('PACK_FOLDER', `pack: the folder ${folder} ${rule}`, { folder }, { cause });
    try {
      await makeFolder(folder);
      await access(folder, constants.W_OK | constants.X_OK);
    } catch (error) {
      const { code } = error as NodeJS.ErrnoException;
      throw fail(
        code === 'EEXIST' || code === 'ENOTDIR'
          ? 'is not a folder'
          : `cannot be written (${code ?? String(error)}); choose another, or make it writable`,
        error,
      );
    }
    if (!(await stat(folder)).isDirectory()) throw fail('is not a folder');
    const names = (await readdir(folder)).filter((name) => name !== STAGING);
    if (names.length > 0 && !names.includes(MANIFEST_PATH))
      throw fail('contains something that is not a pack; choose an empty one');
    await rm(join(folder, STAGING), { recursive: true, force: true });
    let earlier: string[] = [];
    if (names.length > 0) {
      try {
        earlier = manifestPaths(await readFile(join(folder, MANIFEST_PATH), 'utf8'));
      } catch (error) {
        throw fail('has a manifest.json that is not that of a pack; choose an empty one', error);
      }
    }
    return new PackFolder(folder, earlier);
  }

  /** Takes in a file; it is written only when what stands there differs. */
  async put({ path, bytes }: PackFile): Promise<PackedFile> {
    const file = { path, bytes: bytes.length, sha256: hashOf(bytes) };
    this.files.push(file);
    if ((await this.standing(path)) === file.sha256) return file;
    const staged = join(this.folder, STAGING, path);
    await mkdir(dirname(staged), { recursive: true });
    await writeFileDurably(staged, bytes);
    this.changed.push(path);
    return file;
  }

  /** Takes in files as they stand. @returns whether they are the same; else none was taken in */
  async keepSame(files: readonly PackedFile[]): Promise<boolean> {
    for (const { path, sha256 } of files) if (!this.has(path) || (await this.standing(path)) !== sha256) return false;
    this.files.push(...files);
    return true;
  }

  /** Whether the pack that is there has a file. */
  has(path: string): boolean {
    return this.earlier.includes(path);
  }

  /** Takes in a file as it stands. @throws CoreError 'PACK_FOLDER' where it was taken away meanwhile */
  async keep(path: string): Promise<void> {
    const bytes = await readFile(join(this.folder, path)).catch((error: unknown) => {
      const rule = `pack: ${path} is missing in ${this.folder}; pack again`;
      throw new CoreError('PACK_FOLDER', rule, { folder: this.folder }, { cause: error });
    });
    this.files.push({ path, bytes: bytes.length, sha256: hashOf(bytes) });
  }

  /** Every file taken in so far. */
  get packed(): readonly PackedFile[] {
    return this.files;
  }

  /** Puts what changed in its place, removes what the pack has no longer, and writes the manifest. */
  async finish(manifest: string): Promise<PackWritten> {
    for (const path of this.changed) {
      const target = join(this.folder, path);
      await mkdir(dirname(target), { recursive: true });
      await rename(join(this.folder, STAGING, path), target);
    }
    const kept = new Set(this.files.map(({ path }) => path));
    const removed = this.earlier.filter((path) => !kept.has(path)).sort();
    for (const path of removed) await this.remove(path);
    const written = [...this.changed].sort();
    if ((await this.standing(MANIFEST_PATH)) !== hashOf(Buffer.from(manifest))) {
      await writeFileDurably(join(this.folder, MANIFEST_PATH), Buffer.from(manifest));
      written.push(MANIFEST_PATH);
    }
    await this.drop();
    return { written, unchanged: this.files.length - this.changed.length, removed };
  }

  /** Forgets what waits; the folder stays as it was. */
  async drop(): Promise<void> {
    await rm(join(this.folder, STAGING), { recursive: true, force: true });
  }

  private async standing(path: string): Promise<string | undefined> {
    try {
      return hashOf(await readFile(join(this.folder, path)));
    } catch {
      return undefined;
    }
  }

  /** Removes a file, and the folders that it leaves empty. */
  private async remove(path: string): Promise<void> {
    await rm(join(this.folder, path), { force: true });
    for (let folder = dirname(path); folder !== '.'; folder = dirname(folder)) {
      try {
        await rmdir(join(this.folder, folder));
      } catch {
        return;
      }
    }
  }
}

function hashOf(bytes: Uint8Array): string {
  return createHash('sha256').update(bytes).digest('hex');
}

/** Makes a folder and those above it, one by one: Node's recursive way never ends where none can be made, as below /proc. */
async function makeFolder(folder: string): Promise<void> {
  try {
    await mkdir(folder);
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    if (code === 'EEXIST' && (await stat(folder)).isDirectory()) return;
    if (code !== 'ENOENT' || dirname(folder) === folder || (await exists(dirname(folder)))) throw error;
    await makeFolder(dirname(folder));
    await mkdir(folder);
  }
}

async function exists(path: string): Promise<boolean> {
  return stat(path).then(
    () => true,
    () => false,
  );
}
