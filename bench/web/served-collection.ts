import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { CollectionContent } from '@stravel/core';
import { createApp, openDatabase } from '@stravel/server';
import { pino } from 'pino';

/** The built server stands beside the built benchmark. */
const SERVER = fileURLToPath(new URL('./main.js', import.meta.url));

export interface ServedCollection {
  readonly address: string;
  /** Address of its collection. */
  readonly home: string;
  stop(): Promise<void>;
}

/** The server as it is used, a process of its own, with one collection in it; 'demo' has it make the demo. */
export async function serveCollection(content: CollectionContent | 'demo'): Promise<ServedCollection> {
  const folder = mkdtempSync(join(tmpdir(), 'stravel-bench-'));
  if (content !== 'demo') {
    const database = await openDatabase(folder);
    const server = createApp({
      database,
      dataFolder: folder,
      webFolder: undefined,
      log: pino({ level: 'silent' }),
      now: () => new Date(),
    });
    await server.collections.take('bench', content);
    await server.close();
    await database.close();
  }
  const child = spawn(process.execPath, [SERVER, content === 'demo' ? 'demo' : 'serve'], {
    env: { ...process.env, PORT: '0', STRAVEL_DATA: folder, STRAVEL_LOG: 'silent' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const address = await new Promise<string>((resolve, reject) => {
    child.stdout.on('data', (data: Buffer) => {
      const found = /Stravel is at (\S+)/.exec(data.toString());
      if (found) resolve(found[1]);
    });
    child.once('exit', (code) => reject(new Error(`the server ended with ${code ?? 'a signal'}`)));
  });
  return {
    address,
    home: `${address}/c/${content === 'demo' ? 'cinderbrine' : 'bench'}`,
    stop: async () => {
      const ended = new Promise((resolve) => child.once('exit', resolve));
      child.kill('SIGTERM');
      await ended;
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
