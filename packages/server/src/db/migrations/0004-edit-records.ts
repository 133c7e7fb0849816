import type { Operation } from '@stravel/core';
import { QueryTypes } from 'sequelize';
import { recordsTouched } from '../../edits/records-touched';
import type { Migration } from './migration';

const BATCH = 500;

/** Which edit touches which small record, so that the history of one is read without reading all. */
export const editRecords: Migration = {
  name: '0004-edit-records',
  async up(queries) {
    const { sequelize } = queries;
    await sequelize.query(
      'CREATE TABLE edit_records (collection TEXT NOT NULL REFERENCES collections (id) ON DELETE CASCADE, record TEXT NOT NULL, sequence INTEGER NOT NULL, ' +
        'PRIMARY KEY (collection, record, sequence)) WITHOUT ROWID',
    );
    const collections = await sequelize.query<{ id: string }>('SELECT id FROM collections', {
      type: QueryTypes.SELECT,
    });
    for (const { id } of collections) {
      for (let after = 0; ;) {
        const edits = await sequelize.query<{ sequence: number; operations: string }>(
          'SELECT sequence, operations FROM edits WHERE collection = ? AND sequence > ? ORDER BY sequence LIMIT ?',
          { replacements: [id, after, BATCH], type: QueryTypes.SELECT },
        );
        for (const { sequence, operations } of edits) {
          // Written by the log from a checked edit.
          const records = recordsTouched(JSON.parse(operations) as Operation[]);
          if (records.length > 0) {
            await sequelize.query(
              'INSERT INTO edit_records (collection, record, sequence) SELECT ?, value, ? FROM json_each(?)',
              {
                replacements: [id, sequence, JSON.stringify(records)],
              },
            );
          }
        }
        if (edits.length < BATCH) break;
        after = edits[edits.length - 1].sequence;
      }
    }
  },
  async down(queries) {
    await queries.dropTable('edit_records');
  },
};
