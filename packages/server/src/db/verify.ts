import { createHash } from 'node:crypto';
import { existsSync, readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { CoreError, RECORDS_DOCUMENT, recordFaults, type EditableKind } from '@stravel/core';
import { QueryTypes } from 'sequelize';
import { bakeFileName } from '../bakes/bake-file';
import { CollectionRepository } from '../collections/collection-repository';
import { DocumentStore } from '../documents/document-store';
import { tablesOf } from '../documents/record-tables';
import { SnapshotRepository } from '../documents/snapshot-repository';
import { EditRepository } from '../edits/edit-repository';
import { openDatabase } from './database';

/** What was looked at, and everything that is wrong with it. */
export interface Verified {
  readonly collections: number;
  readonly records: number;
  readonly files: number;
  readonly faults: readonly string[];
}

/**
 * Looks at everything in a data folder: the database page by page, every record of every document, and every file that is named, by
 * its hash. Changes nothing but what an opening changes. The caller holds the folder's lock.
 */
export async function verifyDataFolder(dataFolder: string): Promise<Verified> {
  const faults: string[] = [];
  let [records, files] = [0, 0];
  const database = await openDatabase(dataFolder);
  try {
    const pages = await database.sequelize.query<{ integrity_check: string }>('PRAGMA integrity_check', {
      type: QueryTypes.SELECT,
    });
    for (const { integrity_check: text } of pages) if (text !== 'ok') faults.push(`database: ${text}`);
    const rows = new CollectionRepository(database);
    const documents = new DocumentStore(new SnapshotRepository(database), new EditRepository(database));
    const assets = new Set<string>();
    const all = [...(await rows.all()), ...(await rows.binned())];
    for (const { id, name } of all) {
      try {
        const tables = tablesOf((await documents.load(id, RECORDS_DOCUMENT)).state);
        for (const kit of Object.values(tables.kit)) assets.add(kit.mesh);
        for (const document of [RECORDS_DOCUMENT, ...Object.keys(tables.stratum)]) {
          for (const [kind, table] of (await documents.load(id, document)).state) {
            for (const [of, record] of table) {
              records++;
              const [fault] = recordFaults(kind as EditableKind, record);
              if (fault) faults.push(`${name}: ${document}: ${kind} ${of}: ${fault.message}`);
            }
          }
        }
        documents.forget(id);
      } catch (error) {
        if (!(error instanceof CoreError)) throw error;
        faults.push(`${name}: ${error.message}`);
      }
    }
    for (const asset of assets)
      if (!existsSync(join(dataFolder, 'assets', asset))) faults.push(`assets: the mesh ${asset} is missing`);
    for (const asset of existsSync(join(dataFolder, 'assets')) ? readdirSync(join(dataFolder, 'assets')) : []) {
      if (asset.endsWith('.part')) continue;
      files++;
      const hash = createHash('sha256')
        .update(readFileSync(join(dataFolder, 'assets', asset)))
        .digest('hex');
      if (hash !== asset) faults.push(`assets: ${asset} was changed, its SHA-256 is ${hash}`);
    }
    const bakes = await database.sequelize.query<{ file: string }>('SELECT DISTINCT file FROM bakes', {
      type: QueryTypes.SELECT,
    });
    for (const { file } of bakes) {
      files++;
      const path = join(dataFolder, 'bakes', file);
      if (!existsSync(path)) faults.push(`bakes: ${file} is missing; bake its level again`);
      else if (bakeFileName(readFileSync(path)) !== file)
        faults.push(`bakes: ${file} was cut off or changed; bake its level again`);
    }
    return { collections: all.length, records, files, faults };
  } finally {
    await database.close();
  }
}
