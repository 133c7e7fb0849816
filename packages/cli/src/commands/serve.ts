import { readConfig, startServer, type RunningServer } from '@stravel/server';
import { demoArchive } from '../demo-archive';

/** Serves until told to stop. */
export async function serveCommand(): Promise<void> {
  announce(await startServer(readConfig(process.env), demoArchive));
}

/** Prints the address and stops at SIGINT or SIGTERM. */
export function announce(server: RunningServer): void {
  process.stdout.write(`Stravel is at ${server.address}\n`);
  for (const signal of ['SIGINT', 'SIGTERM'] as const) {
    process.once(signal, () => {
      void server.stop().then(() => process.exit(0));
    });
  }
}
