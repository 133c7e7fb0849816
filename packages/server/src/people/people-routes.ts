import { randomUUID } from 'node:crypto';
import { Router } from 'express';
import { object, string, ValidationError } from 'yup';
import type { Database } from '../db/database';
import type { PersonRow } from '../db/models';
import { HttpError } from '../http/problem';

const body = object({ name: string().required().trim().min(1).max(60) })
  .noUnknown()
  .required();

/** The names chosen at the first visit. */
export function peopleRoutes(database: Database, now: () => Date): Router {
  const router = Router();
  router.post('/people', async (request, response) => {
    let name: string;
    try {
      ({ name } = body.validateSync(request.body));
    } catch (error) {
      if (!(error instanceof ValidationError)) throw error;
      throw new HttpError(400, 'PERSON_INVALID', `person: ${error.errors.join('; ')}`);
    }
    const row: PersonRow = { id: randomUUID(), name, created_at: now().toISOString() };
    await database.queue.write((transaction) => database.models.people.create(row, { transaction }));
    response.status(201).json({ id: row.id, name: row.name });
  });
  router.get('/people', async (_request, response) => {
    const rows = (await database.models.people.findAll({ raw: true, attributes: ['id', 'name'] })) as unknown as PersonRow[];
    response.json({ people: rows.map(({ id, name }) => ({ id, name })) });
  });
  return router;
}
