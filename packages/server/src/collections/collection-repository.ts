import { Op, QueryTypes, type Transaction } from 'sequelize';
import type { Database } from '../db/database';
import type { CollectionRow } from '../db/models';

/** What the tables say of a collection without opening it. */
export interface CollectionUse {
  readonly lastSequence: number;
  /** Time of its last edit, ISO 8601; null when it has none. */
  readonly changedAt: string | null;
  /** Stored bytes of its content, its log and its bakes. */
  readonly bytes: number;
}

/** Tables whose rows belong to a collection, what points at others first. */
const TABLES_OF_COLLECTION = [
  'jobs',
  'bakes',
  'bake_subjects',
  'snapshot_chunks',
  'snapshots',
  'edit_records',
  'edit_documents',
  'edits',
] as const;

/** The list of collections. What a collection holds stands in its documents. */
export class CollectionRepository {
  /** Ids that are in use. Asked at every request. */
  private readonly known = new Set<string>();

  constructor(private readonly database: Database) {}

  /** Those in use, oldest first. */
  all(): Promise<CollectionRow[]> {
    return this.rows({ binned_at: null });
  }

  /** Those in the bin, oldest first. */
  binned(): Promise<CollectionRow[]> {
    return this.rows({ binned_at: { [Op.ne]: null } });
  }

  /** Whether a collection is in use. */
  async exists(id: string): Promise<boolean> {
    if (!this.known.has(id) && (await this.database.models.collections.count({ where: { id, binned_at: null } })) > 0)
      this.known.add(id);
    return this.known.has(id);
  }

  /** A collection in use or in the bin. */
  async byId(id: string): Promise<CollectionRow | undefined> {
    return (
      ((await this.database.models.collections.findByPk(id, { raw: true })) as unknown as CollectionRow | null) ??
      undefined
    );
  }

  async create(transaction: Transaction, row: CollectionRow): Promise<void> {
    await this.database.models.collections.create(row, { transaction });
  }

  /** Puts a collection into the bin, or takes it out (null). */
  async bin(transaction: Transaction, id: string, at: string | null): Promise<void> {
    await this.database.models.collections.update({ binned_at: at }, { where: { id }, transaction });
    this.known.delete(id);
  }

  /** Deletes a collection's rows for good. */
  async remove(transaction: Transaction, id: string): Promise<void> {
    for (const table of TABLES_OF_COLLECTION) {
      await this.database.sequelize.query(`DELETE FROM ${table} WHERE collection = ?`, {
        replacements: [id],
        transaction,
      });
    }
    await this.database.models.collections.destroy({ where: { id }, transaction });
    this.known.delete(id);
  }

  async use(id: string): Promise<CollectionUse> {
    const [row] = await this.database.sequelize.query<{ last: number | null; at: string | null; bytes: number }>(
      'SELECT (SELECT MAX(sequence) FROM edits WHERE collection = :id) AS last, ' +
        '(SELECT at FROM edits WHERE collection = :id ORDER BY sequence DESC LIMIT 1) AS at, ' +
        '(SELECT COALESCE(SUM(LENGTH(bytes)), 0) FROM snapshot_chunks WHERE collection = :id) + ' +
        '(SELECT COALESCE(SUM(LENGTH(operations)), 0) FROM edits WHERE collection = :id) + ' +
        '(SELECT COALESCE(SUM(bytes), 0) FROM bakes WHERE collection = :id) AS bytes',
      { replacements: { id }, type: QueryTypes.SELECT },
    );
    return { lastSequence: row.last ?? 0, changedAt: row.at, bytes: row.bytes };
  }

  private async rows(where: { readonly binned_at: null | { readonly [Op.ne]: null } }): Promise<CollectionRow[]> {
    return (await this.database.models.collections.findAll({
      where,
      order: ['created_at', 'id'],
      raw: true,
    })) as unknown as CollectionRow[];
  }
}
