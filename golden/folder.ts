import { mkdirSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { dirname, join, relative } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { Edit } from '@stravel/core';
import { unzipSync, zipSync } from 'fflate';

const here = dirname(fileURLToPath(import.meta.url));
/** Files of the golden set. */
export const GOLDEN_FILES = {
  data: join(here, 'data.zip'),
  hashes: join(here, 'hashes.json'),
  placed: join(here, 'placed.json'),
  outbox: join(here, 'outbox.json'),
  copied: join(here, 'copied.txt'),
  archive: join(here, 'collection.zip'),
} as const;

/** Unpacks the golden data folder. */
export function unpackData(into: string): void {
  for (const [path, bytes] of Object.entries(unzipSync(readFileSync(GOLDEN_FILES.data)))) {
    mkdirSync(dirname(join(into, path)), { recursive: true });
    writeFileSync(join(into, path), bytes);
  }
}

/** Packs a data folder. */
export function packData(from: string): void {
  const paths = readdirSync(from, { recursive: true, withFileTypes: true }).filter((entry) => entry.isFile());
  const files = paths.map((entry): [string, Uint8Array] => {
    const path = join(entry.parentPath, entry.name);
    return [relative(from, path), readFileSync(path)];
  });
  writeFileSync(GOLDEN_FILES.data, zipSync(Object.fromEntries(files), { level: 9, mtime: '1980-01-01T00:00:00' }));
}

/** Edits that a page kept while it could not send them. */
export function outboxEntries(): { readonly place: number; readonly collection: string; readonly edit: Edit }[] {
  return JSON.parse(readFileSync(GOLDEN_FILES.outbox, 'utf8')) as ReturnType<typeof outboxEntries>;
}
