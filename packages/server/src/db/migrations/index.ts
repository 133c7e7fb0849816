import { firstTables } from './0001-first-tables';
import { jobResults } from './0002-job-results';
import { editRecords } from './0004-edit-records';
import { keysAndBin } from './0003-keys-and-bin';
import { modelVersions } from './0005-model-versions';
import { bakesByKey } from './0006-bakes-by-key';
import type { Migration } from './migration';

/** In the order in which they run; never changed once released. */
export const migrations: readonly Migration[] = [
  firstTables,
  jobResults,
  keysAndBin,
  editRecords,
  modelVersions,
  bakesByKey,
];
