import { counted } from '@stravel/core';
import { withCollections } from '../with-collections';

const KB = 1000;
const MB = 1000000;

/** Prints the collections, one a line: id, name, levels, last change, size. */
export async function listCommand(): Promise<void> {
  await withCollections(async (access) => {
    const all = await access.list();
    if (all.length === 0) process.stdout.write('no collections yet; make one with: stravel new NAME\n');
    for (const { id, name, levels, changedAt, bytes } of all) {
      process.stdout.write(
        `${id}  ${name}, ${counted(levels, 'level')}, changed ${changedAt.slice(0, 16).replace('T', ' ')} UTC, ${sizeText(bytes)}\n`,
      );
    }
  });
}

function sizeText(bytes: number): string {
  return bytes < MB ? `${Math.round(bytes / KB)} kB` : `${(bytes / MB).toFixed(1)} MB`;
}
