import { spawn } from 'node:child_process';
import { existsSync, mkdtempSync, mkdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { archiveCollection } from '@stravel/core';
import { smallCollection } from '@stravel/core/testing';
import { readConfig } from './config';
import { lockDataFolder, runningAddress } from './db/folder-lock';
import { startServer } from './start-server';
import { writeFileDurably } from './collections/write-file';

let folder: string;

beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'stravel-start-'));
});

afterEach(() => {
  rmSync(folder, { recursive: true, force: true });
});

describe('the lock of a data folder', () => {
  it('keeps a second one out, and lets it in when the first is gone, however that ended', async () => {
    expect(await runningAddress(folder)).toBeUndefined();
    const holder = join(__dirname, 'testing/hold-folder.cjs');
    const child = spawn(process.execPath, [holder, join(folder, 'stravel.lock.sqlite')], {
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    await new Promise((resolve) => child.stdout.once('data', resolve));
    // Whatever number a file of the past names.
    writeFileSync(join(folder, 'stravel.lock'), JSON.stringify({ pid: child.pid, port: 4999 }));
    await expect(lockDataFolder(folder)).rejects.toThrow(
      `is in use by process ${child.pid}. Stop it, or set STRAVEL_DATA to another folder.`,
    );
    expect(await runningAddress(folder)).toBe('http://127.0.0.1:4999');
    const ended = new Promise((resolve) => child.once('exit', resolve));
    child.kill('SIGKILL');
    await ended;
    expect(await runningAddress(folder)).toBeUndefined();
    const lock = await lockDataFolder(folder);
    await expect(lockDataFolder(folder)).rejects.toThrow(`by process ${process.pid}`);
    await lock.release();
    expect(await runningAddress(folder)).toBeUndefined();
  });

  it('does not depend on what a note beside it says', async () => {
    writeFileSync(join(folder, 'stravel.lock'), '{"pid":');
    expect(await runningAddress(folder)).toBeUndefined();
    await (await lockDataFolder(folder)).release();
  });
});

describe('the configuration', () => {
  it('has defaults and reads the environment', () => {
    expect(readConfig({})).toMatchObject({ host: '127.0.0.1', port: 4310, logLevel: 'info' });
    expect(readConfig({ PORT: '0', STRAVEL_DATA: folder, STRAVEL_LOG: 'silent' })).toMatchObject({
      port: 0,
      dataFolder: folder,
      logLevel: 'silent',
    });
  });

  it.each(['http', '-1', '70000', '43.5', ''])('refuses the port %j by name', (port) => {
    expect(() => readConfig({ PORT: port })).toThrow(`PORT must be a whole number from 0 to 65535, is "${port}"`);
  });
});

describe('a server', () => {
  it('notices at once that its data folder was moved away or replaced, and saves again when it is back', async () => {
    const data = join(folder, 'data');
    const server = await startServer({
      ...readConfig({ PORT: '0', STRAVEL_DATA: data, STRAVEL_LOG: 'silent' }),
      webFolder: undefined,
    });
    try {
      const create = async (): Promise<[number, string]> => {
        const body = JSON.stringify({ name: 'Salt', ranks: ['Part'], devices: [] });
        const answer = await fetch(`${server.address}/api/collections`, {
          method: 'POST',
          headers: { 'Content-Type': 'application/json' },
          body,
        });
        return [answer.status, ((await answer.json()) as { title?: string }).title ?? ''];
      };
      expect(await create()).toEqual([201, '']);
      renameSync(data, join(folder, 'elsewhere'));
      expect(await create()).toEqual([503, 'DATA_FOLDER_GONE']);
      mkdirSync(data);
      writeFileSync(join(data, 'stravel.sqlite'), '');
      expect(await create()).toEqual([503, 'DATA_FOLDER_GONE']);
      // What is read may still be read.
      expect((await fetch(`${server.address}/api/collections`)).status).toBe(200);
      rmSync(data, { recursive: true });
      renameSync(join(folder, 'elsewhere'), data);
      expect(await create()).toEqual([201, '']);
    } finally {
      await server.stop();
    }
  }, 30000);

  it('serves its page with a nonce of its own each time, and says that a missing script is missing', async () => {
    const web = join(folder, 'web');
    mkdirSync(web);
    writeFileSync(
      join(web, 'index.html'),
      '<app-root ngCspNonce="STRAVEL_NONCE"></app-root><style nonce="STRAVEL_NONCE"></style>',
    );
    writeFileSync(join(web, 'main-1.js'), 'export {};');
    const server = await startServer({
      host: '127.0.0.1',
      port: 0,
      dataFolder: join(folder, 'data'),
      webFolder: web,
      logLevel: 'silent',
    });
    const get = (path: string) => fetch(`${server.address}${path}`);
    try {
      const pages = await Promise.all(['/', '/layout/some-level', '/index.html'].map(get));
      const nonces = await Promise.all(
        pages.map(async (page) => {
          expect([page.status, page.headers.get('Cache-Control')]).toEqual([200, 'no-store']);
          const html = await page.text();
          const nonce = /ngCspNonce="([^"]+)"/.exec(html)?.[1] ?? '';
          expect(page.headers.get('Content-Security-Policy')).toContain(`'nonce-${nonce}'`);
          expect(html).toContain(`<style nonce="${nonce}">`);
          return nonce;
        }),
      );
      expect(new Set(nonces).size).toBe(3);
      const script = await get('/main-1.js');
      expect([script.status, script.headers.get('Content-Security-Policy')]).toEqual([
        200,
        expect.stringContaining("'wasm-unsafe-eval'"),
      ]);
      expect((await get('/main-2.js')).status).toBe(404);
      expect((await get('/api/nothing')).status).toBe(404);
      expect(await runningAddress(join(folder, 'data'))).toBe(server.address);
    } finally {
      await server.stop();
    }
    expect(await runningAddress(join(folder, 'data'))).toBeUndefined();
  });

  it('answers who asks for collections while the demo is made once it is there, and goes on when it cannot be made', async () => {
    const config = { host: '127.0.0.1', port: 0, webFolder: undefined, logLevel: 'silent' };
    let give: (archive: Uint8Array) => void = () => undefined;
    const archive = new Promise<Uint8Array>((resolve) => (give = resolve));
    const server = await startServer({ ...config, dataFolder: join(folder, 'data') }, () => archive);
    try {
      const made = server.openDemo?.();
      let hasAnswered = false;
      const listed = fetch(`${server.address}/api/collections`).then((answer) => {
        hasAnswered = true;
        return answer.json() as Promise<unknown>;
      });
      // What needs no collection is answered meanwhile.
      expect((await fetch(`${server.address}/api/people`)).status).toBe(200);
      expect(hasAnswered).toBe(false);
      give(archiveCollection(await smallCollection()));
      expect(await made).toBe('cinderbrine');
      expect(await listed).toMatchObject({ collections: [{ id: 'cinderbrine' }] });
    } finally {
      await server.stop();
    }
    const broken = await startServer({ ...config, dataFolder: join(folder, 'other') }, () =>
      Promise.resolve(Uint8Array.of(1, 2, 3)),
    );
    try {
      await expect(broken.openDemo?.()).rejects.toMatchObject({ code: expect.stringMatching(/^ARCHIVE/) });
      expect(await (await fetch(`${broken.address}/api/collections`)).json()).toMatchObject({ collections: [] });
    } finally {
      await broken.stop();
    }
  });

  it('does not start on a file that is no database, says so, and lets the folder go', async () => {
    const data = join(folder, 'data');
    mkdirSync(data);
    writeFileSync(
      join(data, 'stravel.sqlite'),
      'this is no database, but it is long enough to be looked at as one'.repeat(40),
    );
    await expect(
      startServer({ host: '127.0.0.1', port: 0, dataFolder: data, webFolder: undefined, logLevel: 'silent' }),
    ).rejects.toThrow(/not a database/);
    expect(existsSync(join(data, 'stravel.lock'))).toBe(false);
  });
});

describe('durable files', () => {
  it('are whole or not there, and leave nothing beside them', async () => {
    const path = join(folder, 'a.bin');
    await writeFileDurably(path, Uint8Array.of(1, 2, 3));
    await writeFileDurably(path, Uint8Array.of(4));
    expect([...readFileSync(path)]).toEqual([4]);
    await expect(writeFileDurably(join(folder, 'gone/a.bin'), Uint8Array.of(1))).rejects.toMatchObject({
      code: 'ENOENT',
    });
  });
});
