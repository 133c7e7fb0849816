import { readConfig, startServer } from '@stravel/server';
import { demoArchive } from '../demo-archive';
import { announce } from './serve';

/** Serves, with the demo collection made if there is none. */
export async function demoCommand(): Promise<void> {
  const server = await startServer(readConfig(process.env), demoArchive);
  const made = server.openDemo?.();
  // Who opens the page meanwhile sees the demo as soon as it is there.
  announce(server);
  await made;
}
