import { counted } from '@stravel/core';
import { readConfig } from '@stravel/server';
import { existsSync } from 'node:fs';
import { print } from '../print';
import { withCollections } from '../with-collections';

const KB = 1000;
const MB = 1000000;
const NOTHING = 'no collections yet; make one with: stravel new NAME\n';

/** Prints the collections, one a line: id, name, levels, last change, size. */
export async function listCommand(): Promise<void> {
  if (!existsSync(readConfig(process.env).dataFolder)) {
    await print(NOTHING);
    return;
  }
  await withCollections(async (access) => {
    const all = await access.list();
    if (all.length === 0) await print(NOTHING);
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
