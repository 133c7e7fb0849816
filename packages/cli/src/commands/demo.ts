import { readConfig, startServer } from '@stravel/server';
import { cinderbrine } from '../../../../demo/cinderbrine';
import { announce } from './serve';

/** Serves, with the demo collection made if there is none. */
export async function demoCommand(): Promise<void> {
  const server = await startServer(readConfig(process.env), cinderbrine);
  await server.openDemo?.();
  announce(server);
}
