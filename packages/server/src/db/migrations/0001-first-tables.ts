import { DataTypes, type ModelAttributeColumnOptions, type QueryInterface } from 'sequelize';
import type { Migration } from './migration';

const collectionKey = (): ModelAttributeColumnOptions => ({
  type: DataTypes.STRING,
  allowNull: false,
  primaryKey: true,
  references: { model: 'collections', key: 'id' },
  onDelete: 'CASCADE',
});
const text = (): ModelAttributeColumnOptions => ({ type: DataTypes.TEXT, allowNull: false });
const whole = (): ModelAttributeColumnOptions => ({ type: DataTypes.INTEGER, allowNull: false });

export const firstTables: Migration = {
  name: '0001-first-tables',
  async up(queries: QueryInterface) {
    await queries.createTable('collections', {
      id: { type: DataTypes.STRING, primaryKey: true },
      name: text(),
      created_at: text(),
    });
    await queries.createTable('people', {
      id: { type: DataTypes.STRING, primaryKey: true },
      name: text(),
      created_at: text(),
    });
    await queries.createTable('edits', {
      collection: collectionKey(),
      sequence: { ...whole(), primaryKey: true },
      id: text(),
      person: text(),
      label: text(),
      undoes: { type: DataTypes.TEXT },
      at: text(),
      operations: text(),
    });
    await queries.addIndex('edits', ['collection', 'id'], { unique: true, name: 'edits_by_id' });
    await queries.createTable('edit_documents', {
      collection: collectionKey(),
      document: { ...text(), primaryKey: true },
      sequence: { ...whole(), primaryKey: true },
    });
    await queries.createTable('snapshots', {
      collection: collectionKey(),
      document: { ...text(), primaryKey: true },
      sequence: whole(),
    });
    await queries.createTable('snapshot_chunks', {
      collection: collectionKey(),
      document: { ...text(), primaryKey: true },
      kind: { ...text(), primaryKey: true },
      chunk: { ...whole(), primaryKey: true },
      count: whole(),
      bytes: { type: DataTypes.BLOB, allowNull: false },
    });
    await queries.createTable('bakes', {
      collection: collectionKey(),
      kind: { ...text(), primaryKey: true },
      subject: { ...text(), primaryKey: true },
      key: text(),
      file: text(),
      bytes: whole(),
      summary: text(),
      created_at: text(),
    });
    await queries.createTable('jobs', {
      id: { type: DataTypes.STRING, primaryKey: true },
      collection: { ...collectionKey(), primaryKey: false },
      kind: text(),
      state: text(),
      attempts: whole(),
      input: text(),
      progress: { type: DataTypes.FLOAT, allowNull: false },
      stage: text(),
      error: { type: DataTypes.TEXT },
      created_at: text(),
      changed_at: text(),
    });
  },
  async down(queries: QueryInterface) {
    for (const table of [
      'jobs',
      'bakes',
      'snapshot_chunks',
      'snapshots',
      'edit_documents',
      'edits',
      'people',
      'collections',
    ]) {
      await queries.dropTable(table);
    }
  },
};
