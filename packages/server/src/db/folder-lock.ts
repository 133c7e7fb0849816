import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { holdFile } from './held-file';

/** A data folder held for this process alone. */
export interface FolderLock {
  /** Says on which port the folder is served. */
  announce(port: number): void;
  release(): Promise<void>;
}

/**
 * Holds a data folder by an exclusive transaction on a small database in it. The system ends it with the process, however that ends, so
 * that no process id of the past, or of another container, ever stands for it.
 * @throws Error when another process holds the folder, naming it
 */
export async function lockDataFolder(dataFolder: string): Promise<FolderLock> {
  mkdirSync(dataFolder, { recursive: true, mode: 0o700 });
  const held = await holdFile(lockPath(dataFolder));
  if (!held) {
    const pid = readNote(dataFolder)?.pid;
    throw new Error(
      `The data folder ${dataFolder} is in use${pid === undefined ? '' : ` by process ${pid}`}. Stop it, or set STRAVEL_DATA to another folder.`,
    );
  }
  const note = (port: number): void => writeFileSync(notePath(dataFolder), JSON.stringify({ pid: process.pid, port }));
  try {
    note(0);
  } catch {
    // Who holds it is a courtesy: on a full disk the lock itself still holds.
  }
  return {
    announce: note,
    release: async () => {
      rmSync(notePath(dataFolder), { force: true });
      await held.release();
    },
  };
}

/** The address of the server that holds a data folder, undefined when none does. */
export async function runningAddress(dataFolder: string): Promise<string | undefined> {
  if (!existsSync(lockPath(dataFolder))) return undefined;
  const free = await holdFile(lockPath(dataFolder));
  if (free) {
    await free.release();
    return undefined;
  }
  const port = readNote(dataFolder)?.port ?? 0;
  return port > 0 ? `http://127.0.0.1:${port}` : undefined;
}

/** Who holds the folder, and on which port; undefined when it does not say. */
function readNote(dataFolder: string): { pid: number; port: number } | undefined {
  try {
    const { pid, port } = JSON.parse(readFileSync(notePath(dataFolder), 'utf8')) as { pid?: unknown; port?: unknown };
    return typeof pid === 'number' && typeof port === 'number' ? { pid, port } : undefined;
  } catch {
    return undefined;
  }
}

const lockPath = (dataFolder: string): string => join(dataFolder, 'stravel.lock.sqlite');
const notePath = (dataFolder: string): string => join(dataFolder, 'stravel.lock');
