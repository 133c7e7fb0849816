import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { QueryTypes, Sequelize } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';
import { migrations } from './migrations';
import { defineModels, type Models } from './models';
import { WriteQueue } from './write-queue';

/** One statement with its values. */
export interface Statement {
  readonly sql: string;
  readonly values: readonly (string | number | null)[];
}

/** An open, migrated database. */
export interface Database {
  readonly sequelize: Sequelize;
  readonly models: Models;
  readonly queue: WriteQueue;
  /**
   * Runs statements as one transaction on a connection of their own; call from inside `queue.exclusive` only.
   * Sequelize's own transactions open a connection each, which edits have no time for.
   */
  atOnce(statements: readonly Statement[]): Promise<void>;
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
  const writer = new Sequelize({ dialect: 'sqlite', storage, logging: false });
  await writer.query('PRAGMA synchronous=FULL');
  await writer.query('PRAGMA foreign_keys=ON');
  const [{ synchronous }] = await writer.query<{ synchronous: number }>('PRAGMA synchronous', { type: QueryTypes.SELECT });
  if (synchronous !== 2) throw new Error(`database: synchronous must be FULL (2), is ${synchronous}`);
  const queue = new WriteQueue(sequelize);
  return {
    sequelize,
    models: defineModels(sequelize),
    queue,
    atOnce: (statements) => runAtOnce(writer, statements),
    close: async () => {
      await queue.settled();
      await writer.close();
      await sequelize.close();
    },
  };
}

async function runAtOnce(writer: Sequelize, statements: readonly Statement[]): Promise<void> {
  await writer.query('BEGIN IMMEDIATE');
  try {
    for (const { sql, values } of statements) await writer.query(sql, { bind: [...values] });
    await writer.query('COMMIT');
  } catch (error) {
    // The statement that failed may have ended the transaction by itself.
    await writer.query('ROLLBACK').catch(() => undefined);
    throw error;
  }
}
