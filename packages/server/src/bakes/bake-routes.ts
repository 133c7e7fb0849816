import { isBakeKind, type BakeRef } from '@stravel/core';
import { Router, type Response } from 'express';
import { HttpError } from '../http/problem';
import type { BakeService } from './bake-service';
import { collectionShelf } from './collection-shelf';

/** The bakes of a collection. */
export function bakeRoutes(service: BakeService): Router {
  const router = Router({ mergeParams: true });

  router.get<{ collection: string }>('/bakes', async (request, response) => {
    response.json({ levels: await service.list(request.params.collection) });
  });

  router.get<{ collection: string }>('/shelf', async (request, response) => {
    response.json(await collectionShelf(service, request.params.collection));
  });

  router.get<{ collection: string }>('/kits/loads', async (request, response) => {
    response.json({ loads: await service.scenes.kitLoads(request.params.collection) });
  });

  router.get<{ collection: string; kind: string; subject: string }>(
    '/bakes/:kind/:subject',
    async (request, response) => {
      const ref = refOf(request.params);
      const kept = await service.kept(request.params.collection, ref);
      if (!kept) throw new HttpError(404, 'BAKE_MISSING', `There is no ${ref.kind} bake of ${ref.subject} yet.`);
      send(response, kept);
    },
  );

  router.post<{ collection: string; kind: string; subject: string }>(
    '/bakes/:kind/:subject',
    async (request, response) => {
      send(response, await service.bytes(request.params.collection, refOf(request.params)));
    },
  );

  // The same by the name of a level, for a shell.
  router.post<{ collection: string; kind: string; level: string }>(
    '/levels/:level/bakes/:kind',
    async (request, response) => {
      const { collection, kind, level } = request.params;
      const subject = await service.scenes.levelNamed(collection, level);
      send(response, await service.bytes(collection, refOf({ kind, subject })));
    },
  );

  // A page that has baked names the key; the result itself is made here, whatever the page would send.
  router.put<{ collection: string; kind: string; subject: string }>(
    '/bakes/:kind/:subject',
    async (request, response) => {
      const key = request.headers['stravel-key'];
      if (typeof key !== 'string')
        throw new HttpError(400, 'BAKE_INVALID', 'The key of the bake must be in the header Stravel-Key.');
      await service.confirm(request.params.collection, refOf(request.params), key);
      response.status(204).end();
    },
  );

  return router;
}

function refOf({ kind, subject }: { readonly kind: string; readonly subject: string }): BakeRef {
  if (!isBakeKind(kind)) throw new HttpError(404, 'BAKE_KIND_UNKNOWN', `There is no bake of the kind ${kind}.`);
  return { kind, subject };
}

/** A bake goes out as it is kept. */
function send(response: Response, { key, bytes }: { readonly key: string; readonly bytes: Uint8Array }): void {
  response.setHeader('Content-Type', 'application/json');
  response.setHeader('Content-Encoding', 'gzip');
  response.setHeader('Cache-Control', 'no-store');
  response.setHeader('Stravel-Key', key);
  response.end(Buffer.from(bytes));
}
