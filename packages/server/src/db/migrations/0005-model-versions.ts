import type { Migration } from './migration';

/** Edits and snapshots say which version of the model wrote them; those from before are of the first. */
export const modelVersions: Migration = {
  name: '0005-model-versions',
  async up({ sequelize }) {
    await sequelize.query('ALTER TABLE edits ADD COLUMN model INTEGER NOT NULL DEFAULT 1');
    await sequelize.query('ALTER TABLE snapshots ADD COLUMN model INTEGER NOT NULL DEFAULT 1');
  },
  async down(queries) {
    await queries.removeColumn('edits', 'model');
    await queries.removeColumn('snapshots', 'model');
  },
};
