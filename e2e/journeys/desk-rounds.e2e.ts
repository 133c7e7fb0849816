import type { CDPSession } from '@playwright/test';
import { expect, introduce, test } from '../fixtures/stravel';

/** Rounds that are compared; STRAVEL_ROUNDS=50 makes the long run. */
const ROUNDS = Number(process.env['STRAVEL_ROUNDS'] ?? 1);
const DESKS = ['sets', 'layout', 'sections', 'cells', 'detail', 'sight', 'budget', 'pack'];

/** What the page holds on to, after all that nobody needs was taken away. */
async function held(cdp: CDPSession): Promise<Record<string, number>> {
  await cdp.send('HeapProfiler.collectGarbage');
  const count = async (kind: string): Promise<number> => {
    const { result } = await cdp.send('Runtime.evaluate', { expression: `${kind}.prototype`, objectGroup: 'count' });
    const { objects } = await cdp.send('Runtime.queryObjects', {
      prototypeObjectId: result.objectId ?? '',
      objectGroup: 'count',
    });
    const { result: length } = await cdp.send('Runtime.callFunctionOn', {
      objectId: objects.objectId,
      functionDeclaration: 'function () { return this.length; }',
      objectGroup: 'count',
    });
    await cdp.send('Runtime.releaseObjectGroup', { objectGroup: 'count' });
    return Number(length.value);
  };
  const { metrics } = await cdp.send('Performance.getMetrics');
  const metric = (name: string): number => metrics.find((one) => one.name === name)?.value ?? NaN;
  return {
    contexts: await count('WebGL2RenderingContext'),
    canvases: await count('HTMLCanvasElement'),
    workers: await count('Worker'),
    listeners: metric('JSEventListeners'),
    nodes: metric('Nodes'),
    heapMegabytes: Math.round(metric('JSHeapUsedSize') / 1e5) / 10,
  };
}

test('Rounds through all desks leave no context, worker or listener behind', async ({ quietPage: page, stravel }) => {
  test.setTimeout(90000 + ROUNDS * 60000);
  await introduce(page, stravel.address);
  const cdp = await page.context().newCDPSession(page);
  await cdp.send('Performance.enable');
  const round = async (): Promise<void> => {
    for (const [i, desk] of DESKS.entries()) {
      await page.keyboard.press(`Alt+${i + 1}`);
      await expect(page).toHaveURL(new RegExp(`/c/cinderbrine/${desk}`));
      await expect(page.getByRole('navigation', { name: 'Desks' }).locator('[aria-current=page]')).toContainText(desk, {
        ignoreCase: true,
      });
    }
    await page.keyboard.press('Alt+1');
    await expect(page.getByRole('grid')).toBeVisible();
    await expect(page.locator('canvas.drawing')).toHaveCount(0);
  };
  // What is loaded once comes in the first.
  await round();
  const before = await held(cdp);
  for (let i = 0; i < ROUNDS; i++) await round();
  const after = await held(cdp);
  if (process.env['STRAVEL_ROUNDS']) process.stdout.write(`${JSON.stringify({ before, after, ROUNDS })}\n`);
  for (const what of ['contexts', 'canvases', 'workers']) expect([what, after[what]]).toEqual([what, before[what]]);
  expect(after['listeners']).toBeLessThanOrEqual(before['listeners'] + 20);
  expect(after['nodes']).toBeLessThanOrEqual(before['nodes'] * 1.1 + 200);
  expect(after['heapMegabytes']).toBeLessThan(before['heapMegabytes'] * 1.2 + 5);
});
