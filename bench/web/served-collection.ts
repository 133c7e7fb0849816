import { spawn } from 'node:child_process';
import { rmSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import type { CollectionContent } from '@stravel/core';
import { newBenchFolder, openBenchFolder } from '../server/bench-folder';

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
  const folder = newBenchFolder();
  if (content !== 'demo') await (await openBenchFolder(content, folder)).close();
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
