import { writeFile } from 'node:fs/promises';
import { counted, archiveIndex, INDEX_PATH, openArchive } from '@stravel/core';
import { isFolder, writeArchiveFolder } from '../archive-folder';
import { chosenCollection, withCollections } from '../with-collections';

/** Writes a collection's archive to a file, or its files into a folder: those that changed. */
export async function archiveCommand(file: string, options: { collection?: string }): Promise<void> {
  await withCollections(async (access) => {
    const id = await chosenCollection(access, options.collection);
    const bytes = await access.archive(id);
    if (!(await isFolder(file))) {
      await writeFile(file, bytes);
      process.stdout.write(`${id} is in ${file}, ${bytes.length} bytes\n`);
      return;
    }
    const files = openArchive(bytes);
    files.set(INDEX_PATH, archiveIndex(files));
    const { written, unchanged, removed } = await writeArchiveFolder(file, files);
    process.stdout.write(
      `${id} is in ${file}: ${counted(written, 'file')} written, ${unchanged} unchanged, ${removed} removed\n`,
    );
  });
}
