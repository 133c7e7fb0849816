import { counted } from '@stravel/core';
import { indexArchiveFolder } from '../archive-folder';

/** Makes the index of an archive's folder anew, after a hand edit. */
export async function indexCommand(folder: string): Promise<void> {
  const count = await indexArchiveFolder(folder);
  process.stdout.write(`${folder} lists ${counted(count, 'file')}\n`);
}
