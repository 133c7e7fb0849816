import { Router } from 'express';
import type { JobService } from '../jobs/job-service';
import { checkedPackRequest, choiceFromAddress } from './pack-request';
import type { PackService } from './pack-service';

/** Checking and packing a collection. */
export function packRoutes(service: PackService, jobs: JobService): Router {
  const router = Router({ mergeParams: true });

  router.get<{ collection: string }>('/pack/check', async (request, response) => {
    const choice = choiceFromAddress(request.query);
    response.json({ findings: await service.check(request.params.collection, choice) });
  });

  router.post<{ collection: string }>('/pack', async (request, response) => {
    response.status(202).json(await jobs.add(request.params.collection, 'pack', checkedPackRequest(request.body)));
  });

  return router;
}
