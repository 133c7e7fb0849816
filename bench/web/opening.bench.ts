import { execFileSync } from 'node:child_process';
import { createServer, type Server } from 'node:http';
import { readFileSync, readdirSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { extname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { Browser } from '@playwright/test';
import { inTurns, timingText, type Row } from '../measure';
import { giveName, launchBrowser } from './browser';
import { serveCollection } from './served-collection';

const ROOT = fileURLToPath(new URL('../../..', import.meta.url));
const BARE = join(ROOT, 'node_modules/.cache/bench-bare/browser');
const ROUNDS = 5;

/** Opening the demo until rows and cores are painted, against a bare Angular page that is sent as many bytes of script. */
export async function openingBench(): Promise<Row[]> {
  execFileSync('npx', ['ng', 'build', 'bare'], {
    cwd: join(ROOT, 'packages/web'),
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  const demo = await serveCollection('demo');
  const browser = await launchBrowser();
  const storage = await introduce(browser, demo.home);
  const sent = await scriptBytes(browser, demo.home, storage);
  const bare = await serveBare(sent);
  try {
    const open = async (address: string, ready: string): Promise<void> => {
      const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, storageState: storage });
      const page = await context.newPage();
      await page.goto(address, { waitUntil: 'commit' });
      await page.waitForFunction(
        (selector) => selector.split(' & ').every((one) => document.querySelector(one) !== null),
        ready,
      );
      await page.evaluate(() => new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(resolve))));
      await context.close();
    };
    const [ours, theirs] = await inTurns(
      ROUNDS,
      () => open(`${demo.home}/sets`, '[data-cell$=":name"] & .core'),
      () => open(bare.address, '.painted'),
    );
    return [
      { name: 'script sent, bytes unpacked', value: sent },
      { name: 'demo opened, rows and cores painted', value: timingText(ours) },
      { name: 'bare Angular page with as much script', value: timingText(theirs) },
      { name: 'demo / bare', value: (ours.medianMs / theirs.medianMs).toFixed(2) },
    ];
  } finally {
    await browser.close();
    bare.server.close();
    await demo.stop();
  }
}

async function introduce(
  browser: Browser,
  address: string,
): Promise<Awaited<ReturnType<Awaited<ReturnType<Browser['newContext']>>['storageState']>>> {
  const context = await browser.newContext();
  const page = await context.newPage();
  await page.goto(`${address}/sets`);
  await giveName(page, 'Bench');
  await page.locator('[data-cell$=":name"]').first().waitFor();
  // Every level is baked before anything is measured, so that the cores are there and the server is idle.
  await page.goto(`${address}/budget`);
  await page.getByRole('button', { name: 'All bakes fresh' }).waitFor({ timeout: 120000 });
  const storage = await context.storageState();
  await context.close();
  return storage;
}

async function scriptBytes(
  browser: Browser,
  address: string,
  storageState: Awaited<ReturnType<typeof introduce>>,
): Promise<number> {
  const context = await browser.newContext({ storageState });
  const page = await context.newPage();
  let bytes = 0;
  page.on('response', (response) => {
    if (response.request().resourceType() === 'script') void response.body().then((body) => (bytes += body.length));
  });
  await page.goto(`${address}/sets`, { waitUntil: 'networkidle' }).catch(() => undefined);
  await page.locator('[data-cell$=":name"]').first().waitFor();
  await context.close();
  return bytes;
}

/** The bare page, with a filler script that brings what it is sent to as many bytes. */
async function serveBare(bytes: number): Promise<{ address: string; server: Server }> {
  const own = readdirSync(BARE)
    .filter((file) => extname(file) === '.js')
    .reduce((sum, file) => sum + readFileSync(join(BARE, file)).length, 0);
  const lines: string[] = [];
  for (let size = 0, i = 0; size < bytes - own; i++) {
    const line = `export function filler${i}(a, b) { const c = a * ${i} + b; return c > 0 ? [c, a, b].map((x) => x + ${i}) : { a, b, c }; }`;
    lines.push(line);
    size += line.length + 1;
  }
  const types: Record<string, string> = { '.js': 'text/javascript', '.css': 'text/css', '.html': 'text/html' };
  const index = readFileSync(join(BARE, 'index.html'), 'utf8').replace(
    '</body>',
    '<script src="filler.mjs" type="module"></script></body>',
  );
  const server = createServer((request, response) => {
    const path = request.url === '/' ? '/index.html' : (request.url ?? '/');
    response.setHeader('Content-Type', types[extname(path)] ?? 'text/javascript');
    if (path === '/index.html') response.end(index);
    else if (path === '/filler.mjs') response.end(lines.join('\n'));
    else {
      try {
        response.end(readFileSync(join(BARE, path)));
      } catch {
        response.statusCode = 404;
        response.end();
      }
    }
  });
  server.listen(0, '127.0.0.1');
  await new Promise((resolve) => server.once('listening', resolve));
  return { address: `http://127.0.0.1:${(server.address() as AddressInfo).port}/`, server };
}
