import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import {
  CoreError,
  ITEM_KINDS,
  RECORDS_DOCUMENT,
  RECORD_KINDS,
  archiveCollection,
  putRecord,
  type CollectionContent,
  type DocumentState,
  type Edit,
  type JsonRecord,
} from '@stravel/core';
import { installLinearPatterns } from '@stravel/core/linear-patterns';
import { EditConflict } from '../packages/server/src/edits/edit-conflict';
import { SAMPLES, goldenCollection, variants } from './content';
import { RandomEdits } from './edits';
import { GOLDEN_FILES, outboxEntries, packData, unpackData } from './folder';
import { GOLDEN, measured } from './measure';
import { placedResults } from './placed';
import { onFolder } from './server';

// Makes the golden set: 'data' makes the data anew with the code as it is, without it only what is measured of the data that lie here.
const EDITS = 5000;
const AFTER_BAKES = 40;

installLinearPatterns();
if (process.argv[2] === 'data') await makeData();
const folder = mkdtempSync(join(tmpdir(), 'stravel-golden-'));
unpackData(folder);
writeFileSync(GOLDEN_FILES.hashes, `${JSON.stringify(await measured(folder, outboxEntries()), null, 1)}\n`);
writeFileSync(GOLDEN_FILES.placed, `${JSON.stringify(placedResults())}\n`);
rmSync(folder, { recursive: true, force: true });

async function makeData(): Promise<void> {
  const dataFolder = mkdtempSync(join(tmpdir(), 'stravel-golden-'));
  await onFolder(dataFolder, async (server) => {
    const content = await goldenCollection();
    await server.collections.take(GOLDEN, content);
    const edits = new RandomEdits(documentsOf(content));
    const log = async (count: number): Promise<void> => {
      for (let logged = 0; logged < count;) {
        const edit = edits.next();
        try {
          await server.edits.append(GOLDEN, edit);
        } catch (error) {
          if (error instanceof CoreError || error instanceof EditConflict) continue;
          throw error;
        }
        edits.taken(edit);
        logged++;
      }
    };
    await log(EDITS - AFTER_BAKES);
    await server.bakes.bakeStale(GOLDEN, {});
    await log(AFTER_BAKES);
    const waiting: Edit[] = Array.from({ length: 12 }, () => edits.next());
    writeFileSync(
      GOLDEN_FILES.outbox,
      `${JSON.stringify(
        waiting.map((edit, i) => ({ place: 1000 + i, collection: GOLDEN, edit })),
        null,
        1,
      )}\n`,
    );
    writeFileSync(GOLDEN_FILES.archive, archiveCollection(await server.collections.give(GOLDEN)));
  });
  packData(dataFolder);
  rmSync(dataFolder, { recursive: true, force: true });
  const kinds = [
    'block',
    'placement',
    'marker',
    'divider',
    'volume',
    'link',
    'path',
    'tileFloor',
    'mask',
    'assembly',
  ] as const;
  const content = Object.fromEntries(kinds.map((kind) => [kind, variants(kind)]));
  writeFileSync(
    GOLDEN_FILES.copied,
    JSON.stringify({
      format: 'stravel-items',
      version: 1,
      pieces: { pin: 'pin', [SAMPLES.assembly.item.assembly]: 'Bay' },
      content,
    }),
  );
}

function documentsOf(content: CollectionContent): Map<string, DocumentState> {
  const documents = new Map<string, DocumentState>();
  const take = (
    document: string,
    kind: (typeof RECORD_KINDS)[number] | (typeof ITEM_KINDS)[number],
    records: readonly object[],
  ): void => {
    const state: DocumentState = documents.get(document) ?? (new Map() as DocumentState);
    for (const record of records as readonly JsonRecord[]) putRecord(state, kind, record['id'] as string, record);
    documents.set(document, state);
  };
  for (const kind of RECORD_KINDS) take(RECORDS_DOCUMENT, kind, Object.values(content.records[kind]));
  for (const [document, items] of content.strata) for (const kind of ITEM_KINDS) take(document, kind, items[kind]);
  return documents;
}
