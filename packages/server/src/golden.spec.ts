import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { archiveFiles, restoreCollection, sha256Hex } from '@stravel/core';
import { GOLDEN_FILES, outboxEntries, unpackData } from '../../../golden/folder';
import { measured } from '../../../golden/measure';
import { placedResults } from '../../../golden/placed';
import { removeFolder } from './testing/test-server';

/** A difference that is meant is taken by `npm run golden`, and named where it is committed. */
describe('the golden set', () => {
  it('is read as it always was: log, snapshots, bakes, packs, schemas, faults, undo and outbox', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'stravel-golden-'));
    try {
      unpackData(folder);
      expect(await measured(folder, outboxEntries())).toEqual(JSON.parse(readFileSync(GOLDEN_FILES.hashes, 'utf8')));
    } finally {
      removeFolder(folder);
    }
  }, 180000);

  it('places things as it always did', () => {
    expect(JSON.parse(JSON.stringify(placedResults()))).toEqual(JSON.parse(readFileSync(GOLDEN_FILES.placed, 'utf8')));
  });

  it('is the same from its archive', () => {
    const { archive } = JSON.parse(readFileSync(GOLDEN_FILES.hashes, 'utf8')) as { archive: unknown };
    const files = archiveFiles(restoreCollection(readFileSync(GOLDEN_FILES.archive)));
    expect(Object.fromEntries([...files].map(([path, bytes]) => [path, sha256Hex(bytes).slice(0, 16)]))).toEqual(
      archive,
    );
  });
});
