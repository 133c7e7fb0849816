import { Router } from 'express';
import { HttpError } from '../http/problem';
import type { JobService } from './job-service';

/** Starting, watching and cancelling jobs of a collection. */
export function jobRoutes(jobs: JobService): Router {
  const router = Router({ mergeParams: true });
  router.post<{ collection: string; kind: string }>('/jobs/:kind', async (request, response) => {
    const { collection, kind } = request.params;
    if (!jobs.hasKind(kind)) throw new HttpError(404, 'JOB_KIND_UNKNOWN', `There is no job of the kind ${kind}.`);
    response.status(202).json(await jobs.add(collection, kind, {}));
  });
  router.get<{ collection: string; id: string }>('/jobs/:id', async (request, response) => {
    const job = await jobs.byId(request.params.id);
    if (!job || job.collection !== request.params.collection)
      throw new HttpError(404, 'JOB_MISSING', `There is no job ${request.params.id}.`);
    response.json(job);
  });
  router.delete<{ collection: string; id: string }>('/jobs/:id', async (request, response) => {
    await jobs.cancel(request.params.collection, request.params.id);
    response.status(204).end();
  });
  return router;
}
