import type { Transaction } from 'sequelize';
import type { Database } from '../db/database';
import type { CollectionRow } from '../db/models';

/** The list of collections. What a collection holds stands in its documents. */
export class CollectionRepository {
  /** Ids that are there; a collection never goes. Asked at every request. */
  private readonly known = new Set<string>();

  constructor(private readonly database: Database) {}

  async all(): Promise<CollectionRow[]> {
    return (await this.database.models.collections.findAll({ order: ['created_at', 'id'], raw: true })) as unknown as CollectionRow[];
  }

  async exists(id: string): Promise<boolean> {
    if (!this.known.has(id) && (await this.database.models.collections.count({ where: { id } })) > 0) this.known.add(id);
    return this.known.has(id);
  }

  async create(transaction: Transaction, row: CollectionRow): Promise<void> {
    await this.database.models.collections.create(row, { transaction });
  }
}
