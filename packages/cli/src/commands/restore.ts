import { readFile } from 'node:fs/promises';
import { withCollections } from '../with-collections';

/** Reads an archive back as a new collection. */
export async function restoreCommand(file: string): Promise<void> {
  const bytes = new Uint8Array(await readFile(file));
  await withCollections(async (access) => {
    const { id, name } = await access.restore(bytes);
    process.stdout.write(`${name} is back as the collection ${id}\n`);
  });
}
