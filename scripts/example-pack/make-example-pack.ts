import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { canonicalJson, plainJson } from '@stravel/core';
import { exampleCollection } from '../../demo/example/example-collection';
import { onFolder } from '../../golden/server';
import { answersOf } from './answers';

/** Writes the example pack and its answers into a folder: `pack/` and `answers.json`. */
export async function makeExamplePack(folder: string): Promise<void> {
  const dataFolder = mkdtempSync(join(tmpdir(), 'stravel-example-'));
  const pack = join(folder, 'pack');
  mkdirSync(folder, { recursive: true });
  try {
    const content = await exampleCollection();
    await onFolder(dataFolder, async (server) => {
      await server.collections.take('example', content);
      await server.packs.pack('example', pack, {});
    });
    const read = (path: string): unknown => JSON.parse(readFileSync(join(pack, path), 'utf8'));
    writeFileSync(join(folder, 'answers.json'), canonicalJson(plainJson(answersOf(content, read))));
  } finally {
    rmSync(dataFolder, { recursive: true, force: true });
  }
}
