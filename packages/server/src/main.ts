import { readConfig } from './config';
import { startServer } from './start-server';

const server = await startServer(readConfig(process.env));
process.stdout.write(`Stravel is at ${server.address}\n`);
for (const signal of ['SIGINT', 'SIGTERM'] as const) {
  process.once(signal, () => {
    void server.stop().then(() => process.exit(0));
  });
}
