import { mkdirSync, mkdtempSync, readdirSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { archiveCollection } from '@stravel/core';
import { edit, removeFolder, rename, startTestServer } from '../testing/test-server';
import { bakeLevel, byKind } from '../testing/level-bakes';
import { backupDataFolder } from './backup';
import { verifyDataFolder } from './verify';

let folder: string;

beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'stravel-backup-'));
});

afterEach(() => removeFolder(folder));

describe('a backup', () => {
  it('is made while a server writes; a server starts on it and archives the same as at its moment', async () => {
    const test = await startTestServer();
    const target = join(folder, 'copy');
    await bakeLevel(test.server, 'small', 'one');
    await test.post('/api/collections/small/edits', edit([rename('one', 'uno')]));
    // Edits go on while the copy is made: it has whole ones only.
    let name = 'uno';
    const writing = (async () => {
      for (let i = 0; i < 40; i++) {
        const next = `uno ${i}`;
        if ((await test.post('/api/collections/small/edits', edit([rename(name, next)]))).status === 201) name = next;
      }
    })();
    const made = await backupDataFolder(test.dataFolder, target);
    await writing;
    expect(made).toMatchObject({ assets: 1, bakes: 2 });
    const { edits } = (await (await test.get('/api/collections/small/edits')).json()) as {
      edits: { sequence: number; operations: { after: string }[] }[];
    };
    await test.stop();

    const copy = await startTestServer(target);
    const log = (await (await copy.get('/api/collections/small/edits')).json()) as typeof edits extends infer E
      ? { edits: E }
      : never;
    expect(log.edits).toEqual(edits.slice(0, log.edits.length));
    const content = await copy.server.collections.give('small');
    expect(content.records.level['one'].name).toBe(log.edits.at(-1)?.operations[0].after);
    expect(archiveCollection(content).length).toBeGreaterThan(1000);
    expect(
      (await copy.server.bakes.list('small')).map(byKind).find(({ level }) => level === 'one')?.sight.state,
    ).not.toBe('none');
    expect(
      (await copy.post('/api/collections/small/edits', edit([rename(content.records.level['one'].name, 'on')]))).status,
    ).toBe(201);
    await copy.stop();
    expect((await verifyDataFolder(target)).faults).toEqual([]);
    removeFolder(test.dataFolder);
  }, 60000);

  it('is refused into a folder that holds something, and of one that has no database', async () => {
    mkdirSync(join(folder, 'full'));
    writeFileSync(join(folder, 'full', 'notes.txt'), 'mine');
    const test = await startTestServer();
    await expect(backupDataFolder(test.dataFolder, join(folder, 'full'))).rejects.toThrow(
      'is not empty; name an empty or a new one',
    );
    expect(readdirSync(join(folder, 'full'))).toEqual(['notes.txt']);
    await expect(backupDataFolder(join(folder, 'nothing'), join(folder, 'copy'))).rejects.toThrow(
      'There is no database in',
    );
    await test.stop();
    removeFolder(test.dataFolder);
  });
});

describe('verifying a data folder', () => {
  it('finds a mesh that was changed or is missing, a bake that was cut off, and a record that is unsound', async () => {
    const test = await startTestServer();
    await bakeLevel(test.server, 'small', 'one');
    await test.post('/api/collections/small/edits', edit([rename('one', 'uno')]));
    // As no edit could: past the check of a record.
    const unsound = [
      { document: 'records', kind: 'level', id: 'one', field: 'purpose', before: 'play', after: 'rest' },
    ];
    await test.database.models.edits.update({ operations: JSON.stringify(unsound) }, { where: { sequence: 1 } });
    await test.stop();
    const [asset] = readdirSync(join(test.dataFolder, 'assets'));
    writeFileSync(join(test.dataFolder, 'assets', asset), 'other');
    const [bake] = readdirSync(join(test.dataFolder, 'bakes')).sort();
    writeFileSync(join(test.dataFolder, 'bakes', bake), 'cut');
    const { collections, records, files, faults } = await verifyDataFolder(test.dataFolder);
    expect([collections, records > 8, files]).toEqual([1, true, 3]);
    expect([...faults].sort()).toEqual([
      expect.stringMatching(/^Small: records: level one: purpose must be one of/),
      expect.stringMatching(new RegExp(`^assets: ${asset} was changed`)),
      `bakes: ${bake} was cut off or changed; bake its level again`,
    ]);
    removeFolder(test.dataFolder);
  }, 60000);
});
