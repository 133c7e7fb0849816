import type { Page } from '@playwright/test';
import {
  EMPTY_CONTENT,
  randomStream,
  sha256Hex,
  writeKitGlb,
  type CollectionContent,
  type Piece,
  type Placement,
} from '@stravel/core';
import { smallCollection } from '@stravel/core/testing';
import { median, type Row } from '../measure';
import { giveName, launchBrowser } from './browser';
import { longestTask } from './longest-task';
import { serveCollection } from './served-collection';

const PLACEMENTS = 100000;
const PIECES = 500;
/** Side of the square that they stand on, metres. */
const SIDE = 1000;
const GOAL_MS = 50;

/** A level of 100,000 placements of 500 pieces: opened, panned, 5,000 selected and moved; the longest task of the page's main thread and its memory. */
export async function crowdBench(): Promise<Row[]> {
  const served = await serveCollection(await crowd());
  const browser = await launchBrowser();
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(`${served.home}/sets`);
    await giveName(page, 'Bench');
    const opened = await longestTask(page, async () => {
      await page.keyboard.press('Alt+2');
      await page.getByText(new RegExp(`of ${PLACEMENTS}`)).waitFor({ timeout: 120000 });
      await page.waitForTimeout(3000);
    });
    const rows: Row[] = [];
    const told = (name: string, longest: number): void =>
      void rows.push({
        name: `longest task, ${name}`,
        value: `${longest.toFixed(1)} ms`,
        goal: `under ${GOAL_MS} ms`,
        isMet: longest < GOAL_MS,
      });
    told('opening', opened);
    told('panning and zooming', await longestTask(page, () => pan(page)));
    told('selecting by a box', await longestTask(page, () => select(page)));
    const count = Number(/(\d+) selected/.exec((await page.getByText(/selected of/).textContent()) ?? '')?.[1]);
    told(`moving ${count}`, await longestTask(page, () => move(page)));
    const bytes = await page.evaluate(
      () => (performance as unknown as { memory?: { usedJSHeapSize: number } }).memory?.usedJSHeapSize ?? 0,
    );
    rows.push({ name: 'heap of the page', value: `${(bytes / 1e6).toFixed(0)} MB` });
    rows.push({ name: 'saved after the move', value: `${median([await saved(page)]).toFixed(0)} ms` });
    return rows;
  } finally {
    await browser.close();
    await served.stop();
  }
}

async function crowd(): Promise<CollectionContent> {
  const small = await smallCollection();
  const random = randomStream('crowd');
  const name = (i: number): string => `piece ${String(i).padStart(3, '0')}`;
  const bytes = await writeKitGlb(
    Array.from({ length: PIECES }, (_unused, i) => ({
      name: name(i),
      parts: [
        {
          material: { name: 'stone', colour: [0.5, 0.5, 0.5] as const, roughness: 0.9 },
          positions: Float32Array.of(0, 0, 0, 1, 0, 0, 0, 1 + (i % 7), 0, 0, 0, 1),
          normals: Float32Array.of(0, 0, 1, 0, 0, 1, 0, 0, 1, 0, 1, 0),
          indices: Uint32Array.of(0, 1, 2, 0, 2, 3, 0, 3, 1),
        },
      ],
    })),
  );
  const mesh = sha256Hex(bytes);
  const pieces = Array.from({ length: PIECES }, (_unused, i): Piece => ({
    id: `piece-${i}`,
    kit: 'kit',
    name: name(i),
    bounds: { min: [0, 0, 0], max: [1, 1 + (i % 7), 1] },
    steps: [{ triangles: 3, vertices: 4, materials: 1, bytes: 150 }],
  }));
  const placement = Array.from({ length: PLACEMENTS }, (_unused, i): Placement => {
    const position = [
      Math.round(random.between(0, SIDE) * 100) / 100,
      0,
      Math.round(random.between(0, SIDE) * 100) / 100,
    ] as const;
    return {
      id: `p${String(i).padStart(6, '0')}`,
      piece: `piece-${random.below(PIECES)}`,
      position,
      turn: [random.below(360), 0, 0],
      scale: [1, 1, 1],
    };
  });
  return {
    records: {
      ...small.records,
      level: {
        one: {
          ...small.records.level['one'],
          strata: [{ stratum: 'own', switchedOff: false }],
          bounds: { min: [-10, -1, -10], max: [SIDE + 10, 20, SIDE + 10] },
        },
      },
      kit: { kit: { id: 'kit', name: 'Kit', key: 'kit', mesh } },
      piece: Object.fromEntries(pieces.map((piece) => [piece.id, piece])),
    },
    strata: new Map([
      ['base', EMPTY_CONTENT],
      ['own', { ...EMPTY_CONTENT, placement }],
    ]),
    assets: new Map([[mesh, bytes]]),
  };
}

async function pan(page: Page): Promise<void> {
  const box = await page.getByRole('application').boundingBox();
  if (!box) throw new Error('the plan is not shown');
  await page.mouse.move(box.x + 300, box.y + 250);
  await page.mouse.down({ button: 'right' });
  for (let i = 0; i < 8; i++) await page.mouse.move(box.x + 300 + i * 8, box.y + 250 + i * 4);
  await page.mouse.up({ button: 'right' });
  for (const delta of [-200, 200]) await page.mouse.wheel(0, delta);
  await page.waitForTimeout(1500);
}

/** A box over about a twentieth of the level. */
async function select(page: Page): Promise<void> {
  await page.keyboard.press('f');
  await page.waitForTimeout(1500);
  const box = await page.getByRole('application').boundingBox();
  if (!box) throw new Error('the plan is not shown');
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  const reach = Math.min(box.width, box.height) * 0.078;
  await page.mouse.move(x - reach, y - reach);
  await page.mouse.down();
  await page.mouse.move(x + reach, y + reach, { steps: 3 });
  await page.mouse.up();
  await page.getByText(/[1-9]\d{2,} selected of/).waitFor({ timeout: 60000 });
  await page.waitForTimeout(1500);
}

async function move(page: Page): Promise<void> {
  await page.keyboard.press('ArrowRight');
  await page.waitForTimeout(3000);
}

async function saved(page: Page): Promise<number> {
  const start = performance.now();
  await page.getByText('All changes saved').waitFor({ timeout: 120000 });
  return performance.now() - start;
}
