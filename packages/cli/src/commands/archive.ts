import { writeFile } from 'node:fs/promises';
import { chosenCollection, withCollections } from '../with-collections';

/** Writes a collection's archive to a file. */
export async function archiveCommand(file: string, options: { collection?: string }): Promise<void> {
  await withCollections(async (access) => {
    const id = await chosenCollection(access, options.collection);
    const bytes = await access.archive(id);
    await writeFile(file, bytes);
    process.stdout.write(`${id} is in ${file}, ${bytes.length} bytes\n`);
  });
}
