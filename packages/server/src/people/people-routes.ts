import { randomUUID } from 'node:crypto';
import { Router } from 'express';
import { object, string } from 'yup';
import type { Database } from '../db/database';
import type { PersonRow } from '../db/models';
import { checkedBody } from '../http/checked-body';
import { HttpError } from '../http/problem';

const body = object({ name: string().required().trim().min(1).max(60) })
  .noUnknown()
  .required();

/** The names chosen at the first visit. */
export function peopleRoutes(database: Database, now: () => Date): Router {
  const router = Router();
  router.post('/people', async (request, response) => {
    const { name } = checkedBody(body, request.body, 'person');
    const row: PersonRow = { id: randomUUID(), name, created_at: now().toISOString() };
    await database.queue.write((transaction) => database.models.people.create(row, { transaction }));
    response.status(201).json({ id: row.id, name: row.name });
  });
  router.patch<{ id: string }>('/people/:id', async (request, response) => {
    const { name } = checkedBody(body, request.body, 'person');
    const [changed] = await database.queue.write((transaction) =>
      database.models.people.update({ name }, { where: { id: request.params.id }, transaction }),
    );
    if (changed === 0)
      throw new HttpError(404, 'PERSON_MISSING', `There is no person with the id ${request.params.id}.`);
    response.status(204).end();
  });
  router.get('/people', async (_request, response) => {
    const rows = (await database.models.people.findAll({
      raw: true,
      attributes: ['id', 'name'],
    })) as unknown as PersonRow[];
    response.json({ people: rows.map(({ id, name }) => ({ id, name })) });
  });
  return router;
}
