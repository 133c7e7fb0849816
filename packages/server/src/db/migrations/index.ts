import type { QueryInterface } from 'sequelize';
import { firstTables } from './0001-first-tables';
import { jobResults } from './0002-job-results';
import { editRecords } from './0004-edit-records';
import { keysAndBin } from './0003-keys-and-bin';

/** One step of the database's shape, as an object in code so that it survives bundling. */
export interface Migration {
  readonly name: string;
  up(queries: QueryInterface): Promise<void>;
  down(queries: QueryInterface): Promise<void>;
}

/** In the order in which they run; never changed once released. */
export const migrations: readonly Migration[] = [firstTables, jobResults, keysAndBin, editRecords];
