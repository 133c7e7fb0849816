import { readConfig, startServer } from '@stravel/server';
import { cinderbrine } from '../../../../demo/cinderbrine';
import { announce } from './serve';

/** The id of the demo collection. */
export const DEMO_COLLECTION = 'cinderbrine';

/** Serves, with the demo collection made if there is none. */
export async function demoCommand(): Promise<void> {
  const server = await startServer(readConfig(process.env));
  if (!(await server.collectionRows.exists(DEMO_COLLECTION))) {
    await server.collections.take(DEMO_COLLECTION, await cinderbrine());
    await server.jobs.add(DEMO_COLLECTION, 'bake-stale', {});
  }
  announce(server);
}
