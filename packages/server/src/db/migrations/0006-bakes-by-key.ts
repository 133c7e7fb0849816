import type { Migration } from './migration';

/** Bakes are kept by kind and key, several of one subject; each subject knows which it had last. */
export const bakesByKey: Migration = {
  name: '0006-bakes-by-key',
  async up({ sequelize }) {
    const collection =
      'collection VARCHAR(255) NOT NULL REFERENCES collections (id) ON DELETE CASCADE ON UPDATE CASCADE';
    await sequelize.query('ALTER TABLE bakes RENAME TO bakes_by_subject');
    await sequelize.query(
      `CREATE TABLE bakes (${collection}, kind TEXT NOT NULL, "key" TEXT NOT NULL, file TEXT NOT NULL, bytes INTEGER NOT NULL, summary TEXT NOT NULL, parts TEXT NOT NULL, used_at TEXT NOT NULL, PRIMARY KEY (collection, kind, "key"))`,
    );
    await sequelize.query(
      `CREATE TABLE bake_subjects (${collection}, kind TEXT NOT NULL, subject TEXT NOT NULL, "key" TEXT NOT NULL, PRIMARY KEY (collection, kind, subject))`,
    );
    await sequelize.query(
      `INSERT OR IGNORE INTO bakes SELECT collection, kind, "key", file, bytes, summary, '{}', created_at FROM bakes_by_subject`,
    );
    await sequelize.query('INSERT INTO bake_subjects SELECT collection, kind, subject, "key" FROM bakes_by_subject');
    await sequelize.query('DROP TABLE bakes_by_subject');
    await sequelize.query('CREATE INDEX bakes_by_file ON bakes (file)');
  },
  async down({ sequelize }) {
    await sequelize.query(
      `CREATE TABLE bakes_by_subject (collection VARCHAR(255) NOT NULL REFERENCES collections (id) ON DELETE CASCADE ON UPDATE CASCADE, kind TEXT NOT NULL, subject TEXT NOT NULL, "key" TEXT NOT NULL, file TEXT NOT NULL, bytes INTEGER NOT NULL, summary TEXT NOT NULL, created_at TEXT NOT NULL, PRIMARY KEY (collection, kind, subject))`,
    );
    await sequelize.query(
      `INSERT INTO bakes_by_subject SELECT s.collection, s.kind, s.subject, s."key", b.file, b.bytes, b.summary, b.used_at FROM bake_subjects s JOIN bakes b ON b.collection = s.collection AND b.kind = s.kind AND b."key" = s."key"`,
    );
    await sequelize.query('DROP TABLE bake_subjects');
    await sequelize.query('DROP TABLE bakes');
    await sequelize.query('ALTER TABLE bakes_by_subject RENAME TO bakes');
  },
};
