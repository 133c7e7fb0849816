import { ordersBetween, type CollectionContent } from '@stravel/core';
import { smallCollection } from '@stravel/core/testing';
import type { Page } from '@playwright/test';
import { median, type Row } from '../measure';
import { launchBrowser } from './browser';
import { serveCollection } from './served-collection';

const LEVELS = 2000;
const GOAL_MS = 50;
const WHEELS = 40;

/** 2,000 levels scrolled and filtered: the longest task of the page's main thread, in milliseconds and in calibration loops. */
export async function setsBench(): Promise<Row[]> {
  const served = await serveCollection(await manyLevels());
  const browser = await launchBrowser();
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(`${served.address}/sets`);
    await page.getByLabel('Name', { exact: true }).fill('Bench');
    await page.getByRole('button', { name: 'Start' }).click();
    await page.getByRole('gridcell', { name: 'level 0001', exact: true }).waitFor();
    const loopMs = median(await page.evaluate(calibrate));
    const work: readonly (readonly [string, () => Promise<void>])[] = [
      ['scrolling', () => scroll(page)],
      ['filtering', () => filter(page)],
    ];
    const rows: Row[] = [{ name: 'calibration loop', value: `${loopMs.toFixed(1)} ms` }];
    for (const [name, act] of work) {
      // Once unmeasured, so that the code is compiled as it is for a person at work.
      await act();
      const longest = await longestTask(page, act);
      rows.push({
        name: `longest task, ${LEVELS} levels, ${name}`,
        value: `${longest.toFixed(1)} ms, ${(longest / loopMs).toFixed(2)} loops`,
        goal: `under ${GOAL_MS} ms`,
        isMet: longest < GOAL_MS,
      });
    }
    return rows;
  } finally {
    await browser.close();
    await served.stop();
  }
}

async function manyLevels(): Promise<CollectionContent> {
  const content = await smallCollection();
  const orders = ordersBetween(null, null, LEVELS);
  const { one } = content.records.level;
  content.records.level = Object.fromEntries(
    orders.map((order, i) => {
      const number = String(i + 1).padStart(4, '0');
      return [`l${number}`, { ...one, id: `l${number}`, name: `level ${number}`, code: `C${number}`, order, strata: [], values: { mood: i % 3 === 0 ? 'ember' : 'dark' } }];
    }),
  );
  content.records.stratum = {};
  content.strata.clear();
  return content;
}

async function scroll(page: Page): Promise<void> {
  await page.getByRole('grid').hover();
  for (let i = 0; i < WHEELS; i++) {
    await page.mouse.wheel(0, i < WHEELS / 2 ? 700 : -700);
    await page.waitForTimeout(30);
  }
}

async function filter(page: Page): Promise<void> {
  const box = page.getByPlaceholder('Filter by name, code or text');
  await box.click();
  for (const key of ['1', '7', '9', 'Backspace', 'Backspace', 'Backspace']) {
    await page.keyboard.press(key);
    await page.waitForTimeout(250);
  }
}

/** Milliseconds of the longest task on the main thread while something is done, from the browser's own trace. */
async function longestTask(page: Page, act: () => Promise<void>): Promise<number> {
  const browser = page.context().browser();
  if (!browser) throw new Error('the page has no browser');
  await browser.startTracing(page, { categories: ['toplevel', 'disabled-by-default-devtools.timeline', 'devtools.timeline'] });
  await act();
  const trace = JSON.parse((await browser.stopTracing()).toString('utf8')) as {
    traceEvents: { name: string; ph: string; dur?: number; pid: number; tid: number; args?: { name?: string } }[];
  };
  const mains = new Set(trace.traceEvents.filter(({ name, args }) => name === 'thread_name' && args?.name === 'CrRendererMain').map(({ pid, tid }) => `${pid} ${tid}`));
  const tasks = trace.traceEvents.filter(({ name, ph, pid, tid }) => ph === 'X' && (name === 'RunTask' || name === 'ThreadControllerImpl::RunTask') && mains.has(`${pid} ${tid}`));
  if (tasks.length === 0) throw new Error('the trace holds no tasks of the page');
  return tasks.reduce((most, { dur }) => Math.max(most, (dur ?? 0) / 1000), 0);
}

/** A loop of plain arithmetic, so that a figure of one machine can be held against one of another. Runs in the page. */
function calibrate(): number[] {
  return Array.from({ length: 9 }, () => {
    const start = performance.now();
    let sum = 0;
    for (let i = 0; i < 10_000_000; i++) sum += (i * 7) % 13;
    return performance.now() - start + (sum < 0 ? 1 : 0);
  });
}
