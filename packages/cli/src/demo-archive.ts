import { readFile } from 'node:fs/promises';

/** The demo collection as the build made it, an archive. */
export async function demoArchive(): Promise<Uint8Array> {
  return new Uint8Array(await readFile(new URL('./cinderbrine.stravel.zip', import.meta.url)));
}
