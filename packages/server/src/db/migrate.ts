import { join } from 'node:path';
import { QueryTypes, type Sequelize } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';
import { migrations } from './migrations';
import type { Migration } from './migrations/migration';

/**
 * Brings a database up to date: each step with its mark in one transaction, so that a step that is cut off has never been.
 * Before the first step on a database that is in use, a copy is put beside it.
 * @throws Error when the file is damaged, or was written by a newer Stravel
 */
export async function migrate(
  sequelize: Sequelize,
  dataFolder: string,
  steps: readonly Migration[] = migrations,
): Promise<void> {
  const [check] = await sequelize.query<{ quick_check: string }>('PRAGMA quick_check(1)', { type: QueryTypes.SELECT });
  if (check.quick_check !== 'ok') {
    throw new Error(
      `The database in ${dataFolder} is damaged (${check.quick_check}). Put a copy in its place: a backup, or a file named stravel.before-….sqlite beside it.`,
    );
  }
  const storage = new SequelizeStorage({ sequelize });
  const done = await storage.executed();
  const newer = done.find((name) => !steps.some((migration) => migration.name === name));
  if (newer !== undefined) {
    throw new Error(
      `The database in ${dataFolder} was written by a newer Stravel: its step ${newer} is not known here. Start that one, or set STRAVEL_DATA to another folder.`,
    );
  }
  const due = steps.filter(({ name }) => !done.includes(name));
  if (due.length > 0 && done.length > 0) await copyBefore(sequelize, dataFolder, due[0].name);
  const queries = sequelize.getQueryInterface();
  // Sequelize runs what has no transaction of its own on one connection; nothing else uses it yet.
  const inTransaction = async (
    name: string,
    work: () => Promise<void>,
    mark: () => Promise<unknown>,
  ): Promise<void> => {
    await sequelize.query('BEGIN IMMEDIATE');
    try {
      await work();
      await mark();
      await sequelize.query('COMMIT');
    } catch (cause) {
      await sequelize.query('ROLLBACK');
      throw new Error(
        `The database in ${dataFolder} could not be brought up to date: ${name} failed, nothing of it was kept.`,
        { cause },
      );
    }
  };
  const umzug = new Umzug({
    migrations: steps.map((step) => ({
      name: step.name,
      up: () =>
        inTransaction(
          step.name,
          () => step.up(queries),
          () => storage.logMigration({ name: step.name }),
        ),
      down: () =>
        inTransaction(
          step.name,
          () => step.down(queries),
          () => storage.unlogMigration({ name: step.name }),
        ),
    })),
    // The marks are set inside the transactions.
    storage: {
      executed: () => storage.executed(),
      logMigration: () => Promise.resolve(),
      unlogMigration: () => Promise.resolve(),
    },
    logger: undefined,
  });
  await umzug.up();
}

async function copyBefore(sequelize: Sequelize, dataFolder: string, step: string): Promise<void> {
  // A time in the name: an earlier copy is never written over.
  const time = new Date().toISOString().replace(/[:.]/g, '-');
  await sequelize.query('VACUUM INTO ?', { replacements: [join(dataFolder, `stravel.before-${step}.${time}.sqlite`)] });
}
