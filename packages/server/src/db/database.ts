import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { Sequelize } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';
import { DirectConnection } from './direct-connection';
import { migrations } from './migrations';
import { defineModels, type Models } from './models';
import { WriteQueue } from './write-queue';

/** An open, migrated database. */
export interface Database {
  readonly sequelize: Sequelize;
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
  const umzug = new Umzug({
    migrations: migrations.map((migration) => ({
      name: migration.name,
      up: () => migration.up(sequelize.getQueryInterface()),
      down: () => migration.down(sequelize.getQueryInterface()),
    })),
    storage: new SequelizeStorage({ sequelize }),
    logger: undefined,
  });
  await umzug.up();
  const direct = await DirectConnection.open(storage);
  const queue = new WriteQueue(sequelize);
  return {
    sequelize,
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
