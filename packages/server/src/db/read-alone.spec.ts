import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openDatabase, type Database } from './database';
import { readAlone } from './read-alone';

let folder: string;
let database: Database;

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'stravel-read-'));
  database = await openDatabase(folder);
});

afterEach(async () => {
  await database.close();
  rmSync(folder, { recursive: true, force: true });
});

describe('a read on a connection of its own', () => {
  const endless =
    'WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n) SELECT COUNT(*) AS count FROM n WHERE i < $1';

  it('is ended when it takes too long, while edits and other reads go on', async () => {
    const long = readAlone(database.storage, { sql: endless, values: [1] }, 300).then(
      () => 'read',
      (error: unknown) => (error as { code: string }).code,
    );
    const told: string[] = [];
    void long.then((how) => told.push(how));
    await database.direct.atOnce([
      { sql: 'INSERT INTO collections (id, name, created_at) VALUES ($1, $2, $3)', values: ['c', 'C', '2026-01-01'] },
    ]);
    told.push('written');
    expect(
      await readAlone(database.storage, { sql: 'SELECT id FROM collections WHERE name = $1', values: ['C'] }),
    ).toEqual([{ id: 'c' }]);
    told.push('other read');
    expect(await long).toBe('READ_TOO_LONG');
    expect(told).toEqual(['written', 'other read', 'READ_TOO_LONG']);
  });

  it('changes nothing, and tells what was wrong with a statement', async () => {
    await expect(readAlone(database.storage, { sql: 'DELETE FROM collections', values: [] })).rejects.toThrow(
      /readonly/,
    );
    await expect(readAlone(database.storage, { sql: 'SELECT id FROM nowhere', values: [] })).rejects.toThrow(
      /no such table/,
    );
  });
});
