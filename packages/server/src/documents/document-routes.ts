import { Router } from 'express';
import { HttpError } from '../http/problem';
import { wholeNumber } from '../http/whole-number';
import type { SnapshotRepository } from './snapshot-repository';

/** Snapshots of documents: the index, then chunk by chunk. What came after a snapshot stands in the log. */
export function documentRoutes(snapshots: SnapshotRepository): Router {
  const router = Router({ mergeParams: true });

  router.get<{ collection: string; document: string }>('/documents/:document', async (request, response) => {
    response.setHeader('Cache-Control', 'no-store');
    response.json(await snapshots.index(request.params.collection, request.params.document));
  });

  router.get<{ collection: string; document: string; kind: string; chunk: string }>(
    '/documents/:document/chunks/:kind/:chunk',
    async (request, response) => {
      const { collection, document, kind, chunk } = request.params;
      const found = await snapshots.gzippedChunk(collection, document, kind, wholeNumber(chunk, 'chunk'));
      if (!found) throw new HttpError(404, 'CHUNK_MISSING', `The document ${document} has no chunk ${kind} ${chunk}.`);
      response.setHeader('Content-Type', 'application/octet-stream');
      response.setHeader('Content-Encoding', 'gzip');
      response.setHeader('Cache-Control', 'no-store');
      response.setHeader('Stravel-Sequence', String(found.sequence));
      response.end(found.bytes);
    },
  );

  return router;
}
