import { counted } from '@stravel/core';
import { resolve } from 'node:path';
import { chosenCollection, withCollections } from '../with-collections';
import { choiceOf, findingLines, refuseErrors, type PackOptions } from './check';

/** Checks a collection, then writes it into a folder for the game; files that did not change stay as they are. */
export async function packCommand(folder: string, options: PackOptions): Promise<void> {
  await withCollections(async (access) => {
    const collection = await chosenCollection(access, options.collection);
    const choice = choiceOf(options);
    const findings = await access.check(collection, choice);
    if (findings.length > 0) process.stdout.write(findingLines(findings));
    refuseErrors(findings);
    const { levels, kits, bytes, edit, written, unchanged, removed } = await access.pack(
      collection,
      resolve(folder),
      choice,
    );
    process.stdout.write(
      `${counted(levels, 'level')} and ${counted(kits, 'kit')} are in ${folder}, as of edit ${edit}, ${bytes} bytes: ${counted(written.length, 'file')} written, ${unchanged} unchanged, ${removed.length} removed\n`,
    );
  });
}
