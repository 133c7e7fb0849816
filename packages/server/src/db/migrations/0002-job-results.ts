import { DataTypes } from 'sequelize';
import type { Migration } from './migration';

/** What a job has to tell when it is done. */
export const jobResults: Migration = {
  name: '0002-job-results',
  async up(queries) {
    await queries.addColumn('jobs', 'result', { type: DataTypes.TEXT });
  },
  async down(queries) {
    await queries.removeColumn('jobs', 'result');
  },
};
