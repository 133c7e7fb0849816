import { randomUUID } from 'node:crypto';
import { PICTURE_TYPES, pictureType, type BAKE_TASKS, type archiveCollection, type restoreCollection } from '@stravel/core';
import express, { Router } from 'express';
import { HttpError } from '../http/problem';
import type { ThreadPool } from '../jobs/thread-pool';
import type { AssetStore } from './asset-store';
import type { CollectionRepository } from './collection-repository';
import type { CollectionService } from './collection-service';

/** Largest archive that is taken in over the network, bytes. */
const MOST_ARCHIVE_BYTES = 256 * 1024 * 1024;

/** Largest picture of a level or an entry, bytes. */
const MOST_PICTURE_BYTES = 20 * 1024 * 1024;

/** Largest mesh of a kit that a page may send, bytes. */
const MOST_ASSET_BYTES = 512 * 1024 * 1024;

/** The list of collections, their archives and assets. */
export function collectionRoutes(repository: CollectionRepository, service: CollectionService, assets: AssetStore, threads: ThreadPool): Router {
  const router = Router();

  router.get('/collections', async (_request, response) => {
    const rows = await repository.all();
    response.json({ collections: rows.map(({ id, name }) => ({ id, name })) });
  });

  router.get<{ collection: string }>('/collections/:collection/archive', async (request, response) => {
    const content = await service.give(request.params.collection);
    const bytes = await threads.run<typeof archiveCollection>('archive', content);
    response.setHeader('Content-Disposition', `attachment; filename="${request.params.collection}.stravel.zip"`);
    response.type('application/zip').end(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength));
  });

  router.post('/collections/restore', express.raw({ type: 'application/zip', limit: MOST_ARCHIVE_BYTES }), async (request, response) => {
    const body: unknown = request.body;
    if (!Buffer.isBuffer(body)) {
      throw new HttpError(415, 'ARCHIVE_EXPECTED', 'The archive must be sent as application/zip.');
    }
    const content = await threads.run<typeof restoreCollection>('restore', new Uint8Array(body));
    const id = randomUUID();
    await service.take(id, content);
    response.status(201).json({ id, name: Object.values(content.records.collection)[0].name });
  });

  router.get<{ name: string }>('/assets/:name', async (request, response) => {
    const bytes = await assets.get(request.params.name);
    response.setHeader('Cache-Control', 'max-age=31536000, immutable');
    response.type(pictureType(bytes) ?? 'model/gltf-binary').end(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength));
  });

  router.put('/assets', express.raw({ type: 'model/gltf-binary', limit: MOST_ASSET_BYTES }), async (request, response) => {
    const body: unknown = request.body;
    if (!Buffer.isBuffer(body)) throw new HttpError(415, 'ASSET_EXPECTED', 'A mesh must be sent as model/gltf-binary.');
    const bytes = new Uint8Array(body);
    // What it claims must fit into it; pages read it back later.
    await threads.run<(typeof BAKE_TASKS)['inspect-kit']>('inspect-kit', bytes);
    response.status(201).json({ name: await assets.put(bytes) });
  });

  router.put('/pictures', express.raw({ type: Object.keys(PICTURE_TYPES), limit: MOST_PICTURE_BYTES }), async (request, response) => {
    const body: unknown = request.body;
    if (!Buffer.isBuffer(body)) throw new HttpError(415, 'PICTURE_EXPECTED', 'A picture must be sent as image/png, image/jpeg or image/webp.');
    const bytes = new Uint8Array(body);
    // What the sender calls it proves nothing.
    if (!pictureType(bytes)) throw new HttpError(422, 'PICTURE_UNREADABLE', 'The file is no picture: it begins neither as a PNG, nor as a JPEG, nor as a WebP.');
    response.status(201).json({ name: await assets.put(bytes) });
  });

  return router;
}
