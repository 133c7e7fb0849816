import { randomUUID } from 'node:crypto';
import { open, rename, rm } from 'node:fs/promises';
import { dirname } from 'node:path';

/** Writes a file so that it is there whole or not at all, even when the power goes: temporary, fsync, rename, fsync of the folder. */
export async function writeFileDurably(path: string, bytes: Uint8Array): Promise<void> {
  const temporary = `${path}.${randomUUID()}.part`;
  try {
    const file = await open(temporary, 'wx');
    try {
      await file.writeFile(bytes);
      await file.sync();
    } finally {
      await file.close();
    }
    await rename(temporary, path);
  } catch (error) {
    await rm(temporary, { force: true });
    throw error;
  }
  const folder = await open(dirname(path), 'r');
  try {
    await folder.sync();
  } finally {
    await folder.close();
  }
}
