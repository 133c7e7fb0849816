import { createHash } from 'node:crypto';
import { tmpdir, userInfo } from 'node:os';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { holdFile } from '../db/held-file';

const LOOK_AGAIN_MS = 50;
/** Letters of the hash by which folders are told from each other. */
const FOLDER_LETTERS = 16;

/** Lets work on one folder be done one after the other, also that of other processes; work on others goes on meanwhile. */
export class FolderTurns {
  private readonly last = new Map<string, Promise<unknown>>();

  /** @param folder absolute */
  async take<T>(folder: string, work: () => Promise<T>): Promise<T> {
    const before = this.last.get(folder) ?? Promise.resolve();
    // What became of the one before is told to those who asked for it.
    const mine = before.catch(() => undefined).then(() => alone(folder, work));
    this.last.set(folder, mine);
    try {
      return await mine;
    } finally {
      if (this.last.get(folder) === mine) this.last.delete(folder);
    }
  }
}

/** Works while no other process has its turn. The file that is held lies apart from the folder, which has nothing but a pack. */
async function alone<T>(folder: string, work: () => Promise<T>): Promise<T> {
  const hash = createHash('sha256').update(folder).digest('hex').slice(0, FOLDER_LETTERS);
  const path = join(tmpdir(), `stravel-pack-${userInfo().uid}-${hash}.lock.sqlite`);
  let held = await holdFile(path);
  while (!held) {
    await pause(LOOK_AGAIN_MS);
    held = await holdFile(path);
  }
  try {
    return await work();
  } finally {
    await held.release();
  }
}
