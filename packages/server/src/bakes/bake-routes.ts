import { BAKE_KINDS, type BakeKind } from '@stravel/core';
import { Router } from 'express';
import { HttpError } from '../http/problem';
import type { ThreadPool } from '../jobs/thread-pool';
import type { JSON_TASKS } from '../jobs/zipped-json';
import type { BakeRepository } from './bake-repository';
import type { BakeService } from './bake-service';

/** The bakes of a collection. */
export function bakeRoutes(service: BakeService, repository: BakeRepository, readers: Pick<ThreadPool, 'run'>): Router {
  const router = Router({ mergeParams: true });
  const bytesOf = async (value: unknown): Promise<Buffer> =>
    Buffer.from(await readers.run<(typeof JSON_TASKS)['write-json']>('write-json', value));

  router.get<{ collection: string }>('/bakes', async (request, response) => {
    response.json({ levels: await service.list(request.params.collection) });
  });

  router.get<{ collection: string }>('/kits/loads', async (request, response) => {
    response.json({ loads: await service.kitLoads(request.params.collection) });
  });

  router.get<{ collection: string; kind: string; level: string }>('/bakes/:kind/:level', async (request, response) => {
    const { collection, kind, level } = request.params;
    if (!isBakeKind(kind)) throw new HttpError(404, 'BAKE_KIND_UNKNOWN', `There is no bake of the kind ${kind}.`);
    const kept = await repository.read(collection, kind, level);
    if (!kept) throw new HttpError(404, 'BAKE_MISSING', `There is no ${kind} bake of ${level} yet.`);
    response.setHeader('Content-Type', 'application/json');
    response.setHeader('Content-Encoding', 'gzip');
    response.setHeader('Cache-Control', 'no-store');
    response.setHeader('Stravel-Key', kept.key);
    response.end(kept.gzipped);
  });

  router.post<{ collection: string; id: string }>('/bakes/rehearsal/:id', async (request, response) => {
    response.type('json').send(await bytesOf(await service.rehearse(request.params.collection, request.params.id)));
  });

  router.post<{ collection: string; level: string }>('/bakes/:level', async (request, response) => {
    const { collection, level } = request.params;
    response
      .type('json')
      .send(await bytesOf(await service.bake(collection, await service.levelNamed(collection, level))));
  });

  // A page that has baked names the key; the result itself is made here, whatever the page would send.
  router.put<{ collection: string; level: string }>('/bakes/sight/:level', async (request, response) => {
    const { collection, level } = request.params;
    const key = request.headers['stravel-key'];
    if (typeof key !== 'string')
      throw new HttpError(400, 'BAKE_INVALID', 'The key of the bake must stand in the header Stravel-Key.');
    await service.confirmSight(collection, level, key);
    response.status(204).end();
  });

  return router;
}

function isBakeKind(text: string): text is BakeKind {
  return (BAKE_KINDS as readonly string[]).includes(text);
}
