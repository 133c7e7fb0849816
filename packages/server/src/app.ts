import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import { UPGRADES, type LoggedEdit, type ModelUpgrades } from '@stravel/core';
import compression from 'compression';
import express, { type Express } from 'express';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import { BakeStore } from './bakes/bake-store';
import { bakeRoutes } from './bakes/bake-routes';
import { BakeJudge } from './bakes/bake-judge';
import { BakeService } from './bakes/bake-service';
import { LevelScenes } from './bakes/level-scenes';
import { AssetStore } from './collections/asset-store';
import { CollectionKeeping } from './collections/collection-keeping';
import { CollectionRestoring } from './collections/collection-restoring';
import { CollectionRepository } from './collections/collection-repository';
import { collectionRoutes, missingCollection } from './collections/collection-routes';
import { CollectionService } from './collections/collection-service';
import type { Database } from './db/database';
import { FolderWatch } from './db/folder-watch';
import { documentRoutes } from './documents/document-routes';
import { DocumentStore } from './documents/document-store';
import { SnapshotRepository } from './documents/snapshot-repository';
import { EditRepository } from './edits/edit-repository';
import { editRoutes } from './edits/edit-routes';
import { readLongEdits } from './edits/long-edit';
import { LevelHistoryService } from './edits/level-history';
import { EditService } from './edits/edit-service';
import { pageRoutes, securityHeaders } from './http/page';
import { tellModelVersion } from './http/model-version';
import { HttpError, answerProblem } from './http/problem';
import { readJson } from './http/read-json';
import { onlyReadableAddress } from './http/readable-address';
import { onlySameHost } from './http/same-host';
import { LocalJobQueue } from './jobs/job-queue';
import { JobRepository } from './jobs/job-repository';
import { jobRoutes } from './jobs/job-routes';
import { JobService } from './jobs/job-service';
import { ThreadPool } from './jobs/thread-pool';
import { KitInspections } from './pack/kit-inspections';
import { packRoutes } from './pack/pack-routes';
import { WalkForecasts } from './pack/walk-forecasts';
import { PackService } from './pack/pack-service';
import { peopleRoutes } from './people/people-routes';

export interface AppDependencies {
  readonly database: Database;
  readonly dataFolder: string;
  readonly webFolder: string | undefined;
  readonly log: Logger;
  readonly now: () => Date;
  /** Reads the archive of the demo collection; absent where none ships. */
  readonly demo?: () => Promise<Uint8Array>;
  /** What happened to the model; for tests. */
  readonly upgrades?: ModelUpgrades;
}

/** A server's parts; the app is ready to listen, the jobs are not yet started. */
export interface Server {
  readonly assets: AssetStore;
  readonly app: Express;
  readonly collections: CollectionService;
  readonly collectionRows: CollectionRepository;
  readonly keeping: CollectionKeeping;
  readonly restoring: CollectionRestoring;
  /** Gives the id of the demo collection, made if there is none; undefined where none ships. */
  readonly openDemo: (() => Promise<string>) | undefined;
  readonly edits: EditService;
  readonly bakes: BakeService;
  readonly packs: PackService;
  readonly jobs: JobService;
  readonly threads: ThreadPool;
  /** For what somebody waits for: keys, checks, what is read. */
  readonly answers: ThreadPool;
  close(): Promise<void>;
}

/** Wires a server together without listening. */
export function createApp(dependencies: AppDependencies): Server {
  const { database, dataFolder, log, now, webFolder, upgrades = UPGRADES } = dependencies;
  // Nobody's edit waits behind a bake, nor does the list of what is fresh.
  const answers = new ThreadPool({ threads: 1, isWarm: true });
  const editRows = new EditRepository(database, upgrades, answers);
  const snapshots = new SnapshotRepository(database, upgrades);
  const documents = new DocumentStore(snapshots, editRows);
  const assets = new AssetStore(dataFolder);
  const threads = new ThreadPool();
  const kits = new KitInspections(assets, threads);
  const edits = new EditService(database, editRows, documents, kits, now);
  const collectionRows = new CollectionRepository(database);
  const collections = new CollectionService(database, collectionRows, documents, snapshots, assets, editRows, now);
  const bakeStore = new BakeStore(database, dataFolder, now);
  const scenes = new LevelScenes(database, documents, kits);
  const bakes = new BakeService(scenes, bakeStore, threads, new BakeJudge(scenes, bakeStore, answers), answers);
  edits.events.on('edit', (collection: string, edit: LoggedEdit) => bakes.afterEdit(collection, edit));
  const packsFolder = join(dataFolder, 'packs');
  const packs = new PackService(collections, bakes, threads, kits, assets, packsFolder);
  edits.events.on('edit', (collection: string, edit: LoggedEdit) => packs.afterEdit(collection, edit));
  edits.events.on('forgotten', (collection: string) => packs.forget(collection));
  const jobs = new JobService(
    new JobRepository(database),
    new LocalJobQueue(),
    {
      'bake-stale': ({ collection, signal, progress }) => bakes.bakeStale(collection, { signal, onProgress: progress }),
      pack: packs.packJob,
    },
    now,
    log,
  );

  const keeping = new CollectionKeeping(
    database,
    collectionRows,
    collections,
    documents,
    edits,
    bakeStore,
    assets,
    now,
  );
  const restoring = new CollectionRestoring(database, documents, edits, assets);
  const { demo } = dependencies;
  const openDemo =
    demo &&
    ((): Promise<string> =>
      keeping.openDemo(
        async () => (await answers.run('restore', await demo())).content,
        (id) => jobs.add(id, 'bake-stale', {}),
      ));
  const app = express();
  app.disable('x-powered-by');
  app.use(pinoHttp({ logger: log, genReqId: () => randomUUID(), autoLogging: false }));
  app.use(onlySameHost, onlyReadableAddress);
  app.use((_request, response, next) => {
    securityHeaders(response);
    next();
  });
  const compress = compression({
    filter: (request, response) =>
      response.getHeader('Content-Type') !== 'text/event-stream' && compression.filter(request, response),
  });
  // Only what is read is worth it: the answer to an edit is a few bytes.
  app.use((request, response, next) => (request.method === 'GET' ? compress(request, response, next) : next()));
  app.use('/api', tellModelVersion(upgrades), new FolderWatch(dataFolder).refuse);
  app.use('/api', readLongEdits(answers), readJson(answers));
  // A page that is opened while the demo is made finds it.
  app.use('/api/collections', async (_request, _response, next) => {
    await keeping.demoSettled();
    next();
  });
  app.use(
    '/api',
    peopleRoutes(database, now),
    collectionRoutes({ rows: collectionRows, service: collections, keeping, restoring, assets, threads, openDemo }),
  );
  app.use(
    '/api/collections/:collection',
    async (request, _response, next) => {
      const id = String(request.params['collection']);
      if (!(await collectionRows.exists(id))) throw await missingCollection(collectionRows, id);
      next();
    },
    editRoutes(edits, editRows, jobs, bakes, new LevelHistoryService(database, editRows, documents), upgrades),
    documentRoutes(snapshots),
    jobRoutes(jobs),
    bakeRoutes(bakes),
    packRoutes(packs, jobs, new WalkForecasts(collections, bakes, threads, kits), packsFolder),
  );
  if (webFolder !== undefined) app.use(pageRoutes(webFolder));
  app.use((request) => {
    throw new HttpError(404, 'NOT_FOUND', `There is nothing at ${request.path}.`);
  });
  app.use(answerProblem);

  return {
    app,
    assets,
    collections,
    collectionRows,
    keeping,
    restoring,
    openDemo,
    edits,
    bakes,
    packs,
    jobs,
    threads,
    answers,
    close: async () => {
      await jobs.stop();
      await threads.close();
      await answers.close();
      await database.queue.settled();
    },
  };
}
