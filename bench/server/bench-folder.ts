import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { CollectionContent } from '@stravel/core';
import { createApp, openDatabase, type Database, type Server } from '@stravel/server';
import { pino } from 'pino';

/** A new folder for the data of a bench. */
export function newBenchFolder(): string {
  return mkdtempSync(join(tmpdir(), 'stravel-bench-'));
}

/** A data folder with one collection, 'bench', and its parts in this process. */
export interface BenchFolder {
  readonly database: Database;
  readonly server: Server;
  readonly folder: string;
  /** Ends the server; the folder stays. */
  readonly close: () => Promise<void>;
}

export async function openBenchFolder(content: CollectionContent, folder = newBenchFolder()): Promise<BenchFolder> {
  const database = await openDatabase(folder);
  const server = createApp({
    database,
    dataFolder: folder,
    webFolder: undefined,
    log: pino({ level: 'silent' }),
    now: () => new Date(),
  });
  await server.collections.take('bench', content);
  return {
    database,
    server,
    folder,
    close: async () => {
      await server.close();
      await database.close();
    },
  };
}
