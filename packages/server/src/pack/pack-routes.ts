import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { MANIFEST_PATH, isJsonTable } from '@stravel/core';
import { Router } from 'express';
import { HttpError } from '../http/problem';
import type { JobService } from '../jobs/job-service';
import { checkedForecastRequest, checkedPackFolder, checkedPackRequest, choiceFromAddress } from './pack-request';
import type { PackService } from './pack-service';
import type { WalkForecasts } from './walk-forecasts';

/** Checking and packing a collection, and what walking a pack needs. @param packsFolder where the page's packs are, a folder a collection */
export function packRoutes(
  service: PackService,
  jobs: JobService,
  forecasts: WalkForecasts,
  packsFolder: string,
): Router {
  const router = Router({ mergeParams: true });

  router.get<{ collection: string }>('/pack/check', async (request, response) => {
    const choice = choiceFromAddress(request.query);
    response.json({ findings: await service.check(request.params.collection, choice) });
  });

  router.post<{ collection: string }>('/pack', async (request, response) => {
    response.status(202).json(await jobs.add(request.params.collection, 'pack', checkedPackRequest(request.body)));
  });

  // What stands in a folder: null where nothing was packed into it yet.
  router.get<{ collection: string; folder: string }>('/packs/:folder', async (request, response) => {
    const { collection, folder } = request.params;
    response.json({ levels: await levelsOfPack(join(packsFolder, collection, checkedPackFolder(folder))) });
  });

  router.get<{ collection: string; folder: string; path: string[] }>(
    '/packs/:folder/*path',
    (request, response, next) => {
      const { collection, folder, path } = request.params;
      const root = join(packsFolder, collection, checkedPackFolder(folder));
      // A browser that may guess how long a file lasts would mix it with those of the next pack.
      // What is asked for is looked for below the folder alone, whatever its name; what a pack stages is hidden.
      response.sendFile(
        path.join('/'),
        { root, dotfiles: 'ignore', cacheControl: false, headers: { 'Cache-Control': 'no-cache' } },
        (error) => {
          if (!error || response.headersSent) return;
          next(new HttpError(404, 'PACK_FILE_MISSING', `The pack ${folder} has no file ${path.join('/')}.`));
        },
      );
    },
  );

  router.post<{ collection: string }>('/pack/forecast', async (request, response) => {
    const left = new AbortController();
    response.on('close', () => left.abort());
    const asked = checkedForecastRequest(request.body);
    const { edit, bytes } = await forecasts.of(request.params.collection, asked, { signal: left.signal });
    // The forecast is JSON already, and may be long.
    response.type('json').write(`{"edit":${edit},"forecast":`);
    response.write(bytes);
    response.end('}');
  });

  return router;
}

/** Paths of the levels of a pack; null where there is none. */
async function levelsOfPack(folder: string): Promise<unknown> {
  try {
    const manifest: unknown = JSON.parse(await readFile(join(folder, MANIFEST_PATH), 'utf8'));
    return isJsonTable(manifest) ? manifest['levels'] : null;
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ENOENT') return null;
    throw error;
  }
}
