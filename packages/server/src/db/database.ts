import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { Sequelize } from 'sequelize';
import { DirectConnection } from './direct-connection';
import { migrate } from './migrate';
import { defineModels, type Models } from './models';
import { WriteQueue } from './write-queue';

/** An open, migrated database. */
export interface Database {
  readonly sequelize: Sequelize;
  /** Path of the database file, for reads on connections of their own. */
  readonly storage: string;
  readonly models: Models;
  readonly queue: WriteQueue;
  /** For what the edit log does at every edit; write from inside `queue.exclusive` only. */
  readonly direct: DirectConnection;
  close(): Promise<void>;
}

/**
 * Opens the database of a data folder, making both when absent, and brings its tables up to date.
 * @throws Error when the folder cannot be written or the file is not a database
 */
export async function openDatabase(dataFolder: string): Promise<Database> {
  mkdirSync(dataFolder, { recursive: true });
  const storage = join(dataFolder, 'stravel.sqlite');
  const sequelize = new Sequelize({ dialect: 'sqlite', storage, logging: false });
  await sequelize.query('PRAGMA journal_mode=WAL');
  await sequelize.query('PRAGMA synchronous=FULL');
  await sequelize.query('PRAGMA foreign_keys=ON');
  await migrate(sequelize, dataFolder).catch(async (error: unknown) => {
    await sequelize.close();
    throw error;
  });
  const direct = await DirectConnection.open(storage);
  const queue = new WriteQueue(sequelize);
  return {
    sequelize,
    storage,
    models: defineModels(sequelize),
    queue,
    direct,
    close: async () => {
      await queue.settled();
      await direct.close();
      await sequelize.close();
    },
  };
}
