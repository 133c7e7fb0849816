import { readFile } from 'node:fs/promises';
import { archiveCollection, checkedFiles, restoreFiles } from '@stravel/core';
import { isFolder, readArchiveFolder } from '../archive-folder';
import { withCollections } from '../with-collections';

/** Reads an archive back as a new collection, from a zip or from a folder with its files. */
export async function restoreCommand(file: string): Promise<void> {
  const bytes = (await isFolder(file)) ? await zipOfFolder(file) : new Uint8Array(await readFile(file));
  await withCollections(async (access) => {
    const { id, name } = await access.restore(bytes);
    process.stdout.write(`${name} is back as the collection ${id}\n`);
  });
}

async function zipOfFolder(folder: string): Promise<Uint8Array> {
  const files = await readArchiveFolder(folder);
  try {
    return archiveCollection(restoreFiles(checkedFiles(files)));
  } catch (error) {
    const { message } = error as Error;
    // What was edited by hand is not damaged.
    const isEdited = /not what the index says|not in the index|not in the archive/.test(message);
    throw isEdited ? new Error(`${message}. If you edited the files, run: stravel index ${folder}`, { cause: error }) : error;
  }
}
