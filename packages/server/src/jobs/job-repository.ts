import { Op } from 'sequelize';
import type { Database } from '../db/database';
import type { JobRow } from '../db/models';

export const UNFINISHED = ['queued', 'running'];

/** Jobs as rows, so that they outlive the server. */
export class JobRepository {
  constructor(private readonly database: Database) {}

  async create(row: JobRow): Promise<void> {
    await this.database.queue.write((transaction) => this.database.models.jobs.create(row, { transaction }));
  }

  async change(id: string, values: Partial<JobRow>): Promise<void> {
    await this.database.queue.write((transaction) => this.database.models.jobs.update(values, { where: { id }, transaction }));
  }

  async byId(id: string): Promise<JobRow | undefined> {
    const row = await this.database.models.jobs.findOne({ where: { id }, raw: true });
    return (row as unknown as JobRow | null) ?? undefined;
  }

  async unfinished(collection?: string): Promise<JobRow[]> {
    const where = { state: { [Op.in]: UNFINISHED }, ...(collection === undefined ? {} : { collection }) };
    return (await this.database.models.jobs.findAll({ where, order: ['created_at'], raw: true })) as unknown as JobRow[];
  }
}
