import { mkdir, readFile, readdir, rm, rmdir, stat } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { INDEX_PATH, archiveIndex, isArchivePath } from '@stravel/core';
import { writeFileDurably } from '@stravel/server';

/** What became of the files of an archive in a folder. */
export interface FolderWritten {
  readonly written: number;
  readonly unchanged: number;
  readonly removed: number;
}

/** Whether a path names a folder: it is one, or ends as one. */
export async function isFolder(path: string): Promise<boolean> {
  if (path.endsWith('/')) return true;
  return stat(path).then(
    (found) => found.isDirectory(),
    () => false,
  );
}

/**
 * Writes the files of an archive into a folder: those that changed, the index last. Files of an earlier archive that are no longer in it go;
 * whatever else lies there stays, so that the folder can be one of a version control.
 */
export async function writeArchiveFolder(
  folder: string,
  files: ReadonlyMap<string, Uint8Array>,
): Promise<FolderWritten> {
  await mkdir(folder, { recursive: true });
  const before = await readArchiveFolder(folder);
  let written = 0;
  for (const [path, bytes] of [...files].sort(([a], [b]) => Number(a === INDEX_PATH) - Number(b === INDEX_PATH))) {
    const known = before.get(path);
    if (known && Buffer.compare(known, bytes) === 0) continue;
    await mkdir(dirname(join(folder, path)), { recursive: true });
    await writeFileDurably(join(folder, path), bytes);
    written++;
  }
  const gone = [...before.keys()].filter((path) => !files.has(path));
  for (const path of gone) {
    await rm(join(folder, path), { force: true });
    // A folder that still holds something stays.
    await rmdir(join(folder, dirname(path))).catch(() => undefined);
  }
  return { written, unchanged: files.size - written, removed: gone.length };
}

/** The files in a folder that an archive may hold, by path; what begins with a dot and what no archive has is passed over. */
export async function readArchiveFolder(folder: string): Promise<Map<string, Uint8Array>> {
  const files = new Map<string, Uint8Array>();
  for (const entry of await readdir(folder, { withFileTypes: true, recursive: true })) {
    if (!entry.isFile()) continue;
    const path = join(entry.parentPath, entry.name).slice(join(folder, '/').length).replaceAll('\\', '/');
    if (path.startsWith('.') || !isArchivePath(path)) continue;
    files.set(path, new Uint8Array(await readFile(join(folder, path))));
  }
  return files;
}

/** Writes the index of a folder anew, after its files were edited by hand. @returns the number of files it lists */
export async function indexArchiveFolder(folder: string): Promise<number> {
  const files = await readArchiveFolder(folder);
  files.delete(INDEX_PATH);
  await writeFileDurably(join(folder, INDEX_PATH), archiveIndex(files));
  return files.size;
}
