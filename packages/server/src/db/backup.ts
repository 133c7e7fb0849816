import { copyFileSync, existsSync, mkdirSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import sqlite3 from 'sqlite3';

/** What a backup holds. */
export interface BackupSummary {
  readonly folder: string;
  readonly assets: number;
  readonly bakes: number;
}

/**
 * Copies a data folder into an empty one, whether a server holds it or not: the database page by page as of one moment, then
 * the files that it names. A server starts on the copy.
 * @throws Error when there is no database, or the target is not empty
 */
export async function backupDataFolder(dataFolder: string, target: string): Promise<BackupSummary> {
  const source = join(dataFolder, 'stravel.sqlite');
  if (!existsSync(source)) throw new Error(`There is no database in ${dataFolder}, so there is nothing to back up.`);
  if (existsSync(target) && readdirSync(target).length > 0)
    throw new Error(`The folder ${target} is not empty; name an empty or a new one.`);
  mkdirSync(target, { recursive: true, mode: 0o700 });
  // Files are never changed once written. Those of assets are never deleted, so all that the database names are there after it.
  await copyDatabase(source, join(target, 'stravel.sqlite'));
  return {
    folder: target,
    assets: copyFiles(dataFolder, target, 'assets'),
    bakes: copyFiles(dataFolder, target, 'bakes'),
  };
}

async function copyDatabase(source: string, target: string): Promise<void> {
  const database = await new Promise<sqlite3.Database>((resolve, reject) => {
    const opened: sqlite3.Database = new sqlite3.Database(source, sqlite3.OPEN_READWRITE, (error) =>
      error ? reject(error) : resolve(opened),
    );
  });
  try {
    // As of one moment: it reads in a transaction of its own, and writers go on beside it.
    await new Promise<void>((resolve, reject) =>
      database.run('VACUUM INTO ?', [target], (error: Error | null) => (error ? reject(error) : resolve())),
    );
  } finally {
    await new Promise((resolve) => database.close(resolve));
  }
}

/** Copies whole files; one that a newer bake has replaced meanwhile is passed over, as that bake counts as not made. */
function copyFiles(from: string, to: string, folder: string): number {
  mkdirSync(join(to, folder), { recursive: true, mode: 0o700 });
  if (!existsSync(join(from, folder))) return 0;
  let copied = 0;
  for (const name of readdirSync(join(from, folder))) {
    if (name.endsWith('.part')) continue;
    try {
      copyFileSync(join(from, folder, name), join(to, folder, name));
      copied++;
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'ENOENT') throw error;
    }
  }
  return copied;
}
