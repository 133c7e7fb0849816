import { openDatabase, type Database } from '../packages/server/src/db/database';
import { createApp, type Server } from '../packages/server/src/app';
import { pino } from 'pino';

/** A server on a data folder, at a time that stands still. */
export async function onFolder<Result>(
  dataFolder: string,
  use: (server: Server, database: Database) => Promise<Result>,
): Promise<Result> {
  const database = await openDatabase(dataFolder);
  const log = pino({ level: 'silent' });
  const server = createApp({
    database,
    dataFolder,
    webFolder: undefined,
    log,
    now: () => new Date('2026-03-04T05:06:07.000Z'),
  });
  try {
    return await use(server, database);
  } finally {
    await server.close();
    await database.close();
  }
}
