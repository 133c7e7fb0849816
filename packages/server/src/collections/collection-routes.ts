import { DEFAULT_RANKS, FORMATS, PICTURE_TYPES, pictureType } from '@stravel/core';
import express, { Router } from 'express';
import { array, boolean, number, object, string } from 'yup';
import { checkedBody } from '../http/checked-body';
import { HttpError } from '../http/problem';
import type { ThreadPool } from '../jobs/thread-pool';
import type { AssetStore } from './asset-store';
import type { CollectionKeeping } from './collection-keeping';
import type { CollectionRestoring } from './collection-restoring';
import type { CollectionRepository } from './collection-repository';
import type { CollectionService } from './collection-service';
import type { ArchiveContent } from './read-archive';

/** Largest archive that is taken in over the network, bytes. */
const MAX_ARCHIVE_BYTES = FORMATS.archive.maxBytes;

/** Largest picture of a level or an entry, bytes. */
const MAX_PICTURE_BYTES = FORMATS.png.maxBytes;

/** Largest mesh of a kit that a page may send, bytes. */
const MAX_ASSET_BYTES = 512 * 1024 * 1024;

const named = { name: string().required().trim().min(1).max(200) };
const newBody = object({
  ...named,
  ranks: array()
    .of(string().required().trim().min(1).max(200))
    .min(1)
    .max(8)
    .default([...DEFAULT_RANKS]),
  set: string().trim().min(1).max(200),
  devices: array().of(string().required().max(80)).max(100).default([]),
})
  .noUnknown()
  .required();
const copyBody = object({ ...named, withLevels: boolean().required() })
  .noUnknown()
  .required();
const person = string()
  .required()
  .matches(/^[A-Za-z0-9._:-]{1,80}$/);
const renameBody = object({ ...named, person })
  .noUnknown()
  .required();

const restoreQuery = object({ edit: number().required().integer().min(0), person })
  .noUnknown()
  .required();

/** What the routes of collections work with. */
export interface CollectionParts {
  readonly rows: CollectionRepository;
  readonly service: CollectionService;
  readonly keeping: CollectionKeeping;
  readonly restoring: CollectionRestoring;
  readonly assets: AssetStore;
  readonly threads: ThreadPool;
  /** Gives the id of the demo collection, made if there is none; undefined where no demo ships. */
  readonly openDemo: (() => Promise<string>) | undefined;
}

/** The list of collections, their keeping, archives and assets. */
export function collectionRoutes({
  rows,
  service,
  keeping,
  restoring,
  assets,
  threads,
  openDemo,
}: CollectionParts): Router {
  const router = Router();
  const inUse = async (id: string): Promise<string> => {
    if (!(await rows.exists(id))) throw await missingCollection(rows, id);
    return id;
  };

  router.get('/collections', async (_request, response) => {
    await keeping.emptyBin();
    response.json({
      collections: await keeping.list(),
      binned: await keeping.binned(),
      hasDemo: openDemo !== undefined,
    });
  });

  router.post('/collections', async (request, response) => {
    const { name, ranks, set, devices } = checkedBody(newBody, request.body, 'collection');
    response.status(201).json(await keeping.create({ name, ranks, set: set ?? `${ranks[0]} 1`, devices }));
  });

  router.post('/collections/demo', async (_request, response) => {
    if (!openDemo) throw new HttpError(404, 'DEMO_MISSING', 'This server was started without the demo.');
    response.status(201).json({ id: await openDemo() });
  });

  router.post<{ collection: string }>('/collections/:collection/copy', async (request, response) => {
    const { name, withLevels } = checkedBody(copyBody, request.body, 'copy');
    response.status(201).json(await keeping.copy(await inUse(request.params.collection), name, withLevels));
  });

  router.patch<{ collection: string }>('/collections/:collection', async (request, response) => {
    const { name, person } = checkedBody(renameBody, request.body, 'collection');
    await keeping.rename(await inUse(request.params.collection), name, person);
    response.status(204).end();
  });

  router.delete<{ collection: string }>('/collections/:collection', async (request, response) => {
    await keeping.bin(await inUse(request.params.collection));
    response.status(204).end();
  });

  router.post<{ collection: string }>('/collections/bin/:collection/restore', async (request, response) => {
    await keeping.restoreFromBin(request.params.collection);
    response.status(204).end();
  });

  router.delete<{ collection: string }>('/collections/bin/:collection', async (request, response) => {
    await keeping.remove(request.params.collection);
    response.status(204).end();
  });

  router.get<{ collection: string }>('/collections/:collection/archive', async (request, response) => {
    const content = await service.give(await inUse(request.params.collection));
    const bytes = await threads.run('archive', content);
    response.setHeader('Content-Disposition', `attachment; filename="${request.params.collection}.stravel.zip"`);
    response.type('application/zip').end(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength));
  });

  const archiveBody = express.raw({ type: 'application/zip', limit: MAX_ARCHIVE_BYTES });
  const contentOfBody = (body: unknown): Promise<ArchiveContent> => {
    if (!Buffer.isBuffer(body))
      throw new HttpError(415, 'ARCHIVE_EXPECTED', 'The archive must be sent as application/zip.');
    return threads.run('restore', new Uint8Array(body));
  };

  router.post('/collections/restore', archiveBody, async (request, response) => {
    const { content, loose } = await contentOfBody(request.body);
    response.status(201).json({ ...(await keeping.take(content)), loose });
  });

  router.post<{ collection: string }>(
    '/collections/:collection/restore/preview',
    archiveBody,
    async (request, response) => {
      const collection = await inUse(request.params.collection);
      response.json(await restoring.preview(collection, await contentOfBody(request.body)));
    },
  );

  router.post<{ collection: string }>('/collections/:collection/restore', archiveBody, async (request, response) => {
    const collection = await inUse(request.params.collection);
    const wanted = checkedBody(restoreQuery, { ...request.query, edit: Number(request.query['edit']) }, 'restore');
    response.json(await restoring.restore(collection, (await contentOfBody(request.body)).content, wanted));
  });

  router.get<{ name: string }>('/assets/:name', async (request, response) => {
    const bytes = await assets.get(request.params.name);
    response.setHeader('Cache-Control', 'max-age=31536000, immutable');
    response
      .type(pictureType(bytes) ?? 'model/gltf-binary')
      .end(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength));
  });

  router.put(
    '/assets',
    express.raw({ type: 'model/gltf-binary', limit: MAX_ASSET_BYTES }),
    async (request, response) => {
      const body: unknown = request.body;
      if (!Buffer.isBuffer(body))
        throw new HttpError(415, 'ASSET_EXPECTED', 'A mesh must be sent as model/gltf-binary.');
      const bytes = new Uint8Array(body);
      // What it claims must fit into it; pages read it back later.
      await threads.run('inspect-kit', bytes);
      response.status(201).json({ name: await assets.put(bytes) });
    },
  );

  router.put(
    '/pictures',
    express.raw({ type: Object.keys(PICTURE_TYPES), limit: MAX_PICTURE_BYTES }),
    async (request, response) => {
      const body: unknown = request.body;
      if (!Buffer.isBuffer(body))
        throw new HttpError(415, 'PICTURE_EXPECTED', 'A picture must be sent as image/png, image/jpeg or image/webp.');
      const bytes = new Uint8Array(body);
      // What the sender calls it proves nothing.
      if (!pictureType(bytes))
        throw new HttpError(
          422,
          'PICTURE_UNREADABLE',
          'The file is no picture: it begins neither as a PNG, nor as a JPEG, nor as a WebP.',
        );
      response.status(201).json({ name: await assets.put(bytes) });
    },
  );

  return router;
}

/** Why there is no such collection to work with. */
export async function missingCollection(rows: CollectionRepository, id: string): Promise<HttpError> {
  const row = await rows.byId(id);
  if (row?.binned_at)
    return new HttpError(
      404,
      'COLLECTION_BINNED',
      `The collection ${row.name} is in the bin; restore it on the start page.`,
    );
  return new HttpError(404, 'COLLECTION_MISSING', `There is no collection with the id ${id}.`);
}
