import { Op } from 'sequelize';
import type { Database } from '../db/database';
import type { JobRow } from '../db/models';

export const UNFINISHED = ['queued', 'running'];

/** Jobs as rows, so that they outlive the server. */
export class JobRepository {
  constructor(private readonly database: Database) {}

  /** Creates a job, unless one of the same kind and input already waits or runs for the collection. @returns that one, or the new one */
  createUnlessSame(row: JobRow): Promise<JobRow> {
    return this.database.queue.write(async (transaction) => {
      const { collection, kind, input } = row;
      const same = await this.database.models.jobs.findOne({
        where: { collection, kind, input, state: { [Op.in]: UNFINISHED } },
        order: ['created_at'],
        raw: true,
        transaction,
      });
      if (same) return same as unknown as JobRow;
      await this.database.models.jobs.create(row, { transaction });
      return row;
    });
  }

  /** Changes a job that is in one of some states. @returns whether it was */
  async change(id: string, from: readonly string[], values: Partial<JobRow>): Promise<boolean> {
    const [changed] = await this.database.queue.write((transaction) =>
      this.database.models.jobs.update(values, { where: { id, state: { [Op.in]: [...from] } }, transaction }),
    );
    return changed > 0;
  }

  async byId(id: string): Promise<JobRow | undefined> {
    const row = await this.database.models.jobs.findOne({ where: { id }, raw: true });
    return (row as unknown as JobRow | null) ?? undefined;
  }

  async unfinished(collection?: string): Promise<JobRow[]> {
    const where = { state: { [Op.in]: UNFINISHED }, ...(collection === undefined ? {} : { collection }) };
    return (await this.database.models.jobs.findAll({
      where,
      order: ['created_at'],
      raw: true,
    })) as unknown as JobRow[];
  }
}
