import { mkdtempSync, readFileSync, readdirSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { makeExamplePack } from '../../../../scripts/example-pack/make-example-pack';
import { removeFolder } from '../testing/test-server';

const KEPT = fileURLToPath(new URL('../../../../docs/formats/example-pack/', import.meta.url));
const filesOf = (folder: string): string[] =>
  readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile() && entry.name !== 'README.md')
    .map((entry) => join(entry.parentPath, entry.name).slice(folder.length).replace(/^\//, ''))
    .sort();

describe('the example pack', () => {
  it('is what is written today, file by file: else npm run example-pack', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'stravel-example-'));
    try {
      await makeExamplePack(folder);
      expect(filesOf(folder)).toEqual(filesOf(KEPT));
      const same = filesOf(KEPT).filter((path) =>
        readFileSync(join(folder, path)).equals(readFileSync(join(KEPT, path))),
      );
      expect(same).toEqual(filesOf(KEPT));
    } finally {
      removeFolder(folder);
    }
  }, 60000);
});
