import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { mkdir } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { archiveCollection, archiveFiles, checkedFiles, restoreFiles, type CollectionContent } from '@stravel/core';
import { smallCollection } from '@stravel/core/testing';
import { indexArchiveFolder, readArchiveFolder, writeArchiveFolder } from './archive-folder';

let folder: string;
let content: CollectionContent;

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'stravel-folder-'));
  content = await smallCollection();
});

afterEach(() => rmSync(folder, { recursive: true, force: true }));

const read = (path: string): string => readFileSync(join(folder, path), 'utf8');

describe('an archive as a plain folder', () => {
  it('holds the same files as the zip, and is read back to equal bytes', async () => {
    const files = archiveFiles(content);
    expect(await writeArchiveFolder(folder, files)).toEqual({ written: files.size, unchanged: 0, removed: 0 });
    // What a version control keeps there is passed over.
    await mkdir(join(folder, '.git'));
    writeFileSync(join(folder, '.git', 'config.json'), '{}');
    writeFileSync(join(folder, 'README.md'), '# Mine');
    const back = archiveCollection(restoreFiles(checkedFiles(await readArchiveFolder(folder))));
    expect(Buffer.compare(Buffer.from(back), Buffer.from(archiveCollection(content)))).toBe(0);
  });

  it('changes one line of one file and the index for one moved placement, and writes nothing else', async () => {
    await writeArchiveFolder(folder, archiveFiles(content));
    writeFileSync(join(folder, 'README.md'), '# Mine');
    const before = read('levels/one.json').split('\n');
    const own = content.strata.get('own');
    if (!own) throw new Error('the small collection has a stratum of its own');
    content.strata.set('own', { ...own, placement: [{ ...own.placement[0], position: [7, 0, -2] }] });
    expect(await writeArchiveFolder(folder, archiveFiles(content))).toMatchObject({ written: 2, removed: 0 });
    const after = read('levels/one.json').split('\n');
    expect(after.filter((line, i) => line !== before[i]).map((line) => line.trim())).toEqual([
      '"position": [7, 0, -2],',
    ]);
    expect(read('README.md')).toBe('# Mine');
  });

  it('drops the files of a level whose key changed', async () => {
    await writeArchiveFolder(folder, archiveFiles(content));
    content.records.level['one'] = { ...content.records.level['one'], key: 'first' };
    expect(await writeArchiveFolder(folder, archiveFiles(content))).toMatchObject({ written: 2, removed: 1 });
    expect([...(await readArchiveFolder(folder)).keys()]).toEqual(
      expect.arrayContaining(['levels/first.json', 'levels/two.json']),
    );
  });

  it('is refused after a hand edit until its index is made anew; then the edit counts', async () => {
    await writeArchiveFolder(folder, archiveFiles(content));
    writeFileSync(join(folder, 'levels/one.json'), read('levels/one.json').replace('"name": "one"', '"name": "Quay"'));
    expect(() => checkedFiles(new Map([['index.json', new TextEncoder().encode(read('index.json'))]]))).toThrow(
      'is in the index but not in the archive',
    );
    const edited = await readArchiveFolder(folder);
    expect(() => checkedFiles(edited)).toThrow('levels/one.json is not what the index says');
    expect(await indexArchiveFolder(folder)).toBe(edited.size - 1);
    expect(restoreFiles(checkedFiles(await readArchiveFolder(folder))).records.level['one'].name).toBe('Quay');
  });
});
