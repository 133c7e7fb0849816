import { mkdirSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, type Page } from '@playwright/test';
import { decode } from 'fast-png';
import { DemoServer } from '../../e2e/fixtures/demo-server';
import e2e from '../../e2e/playwright.config';
import { VIEWS, type View } from './list';

// Takes the main views from two builds in one run and compares them, pixel by pixel:
//   npm run views -- BEFORE AFTER [OUT]
// each a checkout that is built. What differs is written to OUT, a picture from each side. Ends with 1 where a view differs.

/** Channels that differ by no more than this are the same: edges are smoothed in different ways. */
const SAME = 24;
/** A view that is drawn the same twice in a row is at rest. */
const MOST_LOOKS = 60;
const LOOK_MS = 250;

async function serve(checkout: string): Promise<DemoServer> {
  const server = new DemoServer(checkout);
  await server.start();
  await server.baked();
  return server;
}

/** A picture of a view when it is at rest. */
async function look(page: Page, { address }: DemoServer, view: View): Promise<Buffer> {
  await page.goto(address + view.path);
  await page.waitForLoadState('networkidle');
  let before = await atRest(page);
  if (view.act) {
    await view.act(page);
    before = await atRest(page);
  }
  return before;
}

async function atRest(page: Page): Promise<Buffer> {
  let before = await page.screenshot({ animations: 'disabled' });
  for (let looks = 0; looks < MOST_LOOKS; looks++) {
    await page.waitForTimeout(LOOK_MS);
    const now = await page.screenshot({ animations: 'disabled' });
    if (now.equals(before)) return now;
    before = now;
  }
  return before;
}

/** Pixels that differ, and the box around them. */
function differences(a: Buffer, b: Buffer): { readonly count: number; readonly box: readonly number[] } {
  const [one, two] = [decode(a), decode(b)];
  if (one.width !== two.width || one.height !== two.height)
    return { count: one.width * one.height, box: [0, 0, one.width, one.height] };
  let count = 0;
  const box = [one.width, one.height, 0, 0];
  for (let at = 0; at < one.width * one.height; at++) {
    let isSame = true;
    for (let k = 0; k < one.channels; k++)
      isSame &&= Math.abs(one.data[at * one.channels + k] - two.data[at * two.channels + k]) <= SAME;
    if (isSame) continue;
    const [x, y] = [at % one.width, Math.floor(at / one.width)];
    count++;
    box[0] = Math.min(box[0], x);
    box[1] = Math.min(box[1], y);
    box[2] = Math.max(box[2], x);
    box[3] = Math.max(box[3], y);
  }
  return { count, box: count === 0 ? [] : box };
}

const [beforeFolder, afterFolder, out = join(tmpdir(), 'stravel-views')] = process.argv.slice(2);
if (!beforeFolder || !afterFolder) {
  process.stderr.write('views: give two checkouts that are built: npm run views -- BEFORE AFTER [OUT]\n');
  process.exit(2);
}
mkdirSync(out, { recursive: true });
const sides = await Promise.all([serve(beforeFolder), serve(afterFolder)]);
const browser = await chromium.launch(e2e.use?.launchOptions ?? {});
let differing = 0;
try {
  for (const view of VIEWS) {
    const pictures: Buffer[] = [];
    for (const side of sides) {
      const page = await browser.newPage({ viewport: e2e.use?.viewport ?? null });
      pictures.push(await look(page, side, view));
      await page.close();
    }
    const { count, box } = differences(pictures[0], pictures[1]);
    process.stdout.write(
      `${view.name.padEnd(20)} ${count === 0 ? 'the same' : `${count} pixels differ, from ${box[0]}, ${box[1]} to ${box[2]}, ${box[3]}`}\n`,
    );
    if (count === 0) continue;
    differing++;
    pictures.forEach((picture, i) =>
      writeFileSync(join(out, `${view.name}-${i === 0 ? 'before' : 'after'}.png`), picture),
    );
  }
} finally {
  await browser.close();
  for (const side of sides) await side.end();
}
process.stdout.write(
  `${VIEWS.length - differing} of ${VIEWS.length} views are the same; pictures of the others are in ${out}\n`,
);
process.exitCode = differing === 0 ? 0 : 1;
