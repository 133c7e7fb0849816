import { readFile } from 'node:fs/promises';
import { basename } from 'node:path';
import {
  archiveCollection,
  checkedFiles,
  chosenFile,
  fileFault,
  restoreFiles,
  type LooseEndNotes,
} from '@stravel/core';
import { isFolder, readArchiveFolder } from '../archive-folder';
import { chosenCollection, withCollections } from '../with-collections';

export interface RestoreOptions {
  readonly into?: string;
  readonly preview?: boolean;
}

/** Reads an archive back, from a zip or from a folder with its files: as a new collection, or into one that is there. */
export async function restoreCommand(file: string, { into, preview }: RestoreOptions): Promise<void> {
  const bytes = (await isFolder(file)) ? await zipOfFolder(file) : await zipOfFile(file);
  await withCollections(
    async (access) => {
      if (into !== undefined) {
        const collection = await chosenCollection(access, into);
        const { operations, changes, loose } = await access.restoreInto(collection, bytes, {
          isPreview: preview === true,
        });
        for (const { kind, added, changed, removed } of changes)
          process.stdout.write(`${kind}: ${added} added, ${changed} changed, ${removed} removed\n`);
        const changesText = operations === 1 ? '1 change' : `${operations} changes`;
        const done =
          preview === true
            ? `would be made in ${into}`
            : `${operations === 1 ? 'was' : 'were'} made in ${into}, as one edit`;
        process.stdout.write(operations === 0 ? `${into} holds that already\n` : `${changesText} ${done}\n`);
        tellLooseEnds(loose);
        return;
      }
      const { id, name, loose } = await access.restore(bytes);
      process.stdout.write(`${name} is back as the collection ${id}\n`);
      tellLooseEnds(loose);
    },
    { makesFolder: into === undefined },
  );
}

/** Says what in the archive points at nothing; it was read all the same. */
function tellLooseEnds({ count, first }: LooseEndNotes): void {
  for (const text of first) process.stdout.write(`${text}\n`);
  if (count > first.length)
    process.stdout.write(`and ${count - first.length} more point at something that does not exist\n`);
}

async function zipOfFile(file: string): Promise<Uint8Array> {
  const bytes = new Uint8Array(await readFile(file));
  const fault = fileFault(chosenFile(basename(file), bytes), ['archive']);
  if (fault) throw new Error(fault);
  return bytes;
}

async function zipOfFolder(folder: string): Promise<Uint8Array> {
  const files = await readArchiveFolder(folder);
  try {
    return archiveCollection(restoreFiles(checkedFiles(files)));
  } catch (error) {
    const { message } = error as Error;
    // What was edited by hand is not damaged.
    const isEdited = /not what the index says|not in the index|not in the archive/.test(message);
    throw isEdited
      ? new Error(`${message}. If you edited the files, run: stravel index ${folder}`, { cause: error })
      : error;
  }
}
