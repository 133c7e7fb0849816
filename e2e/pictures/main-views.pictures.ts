import type { Page } from '@playwright/test';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { expect, giveName, test } from '../fixtures/stravel';

const FOLDER = fileURLToPath(new URL('../../docs/screenshots', import.meta.url));

/** A main view: where it is, and what is done there before the picture is taken. */
interface View {
  readonly name: string;
  readonly path: string;
  readonly act?: (page: Page) => Promise<void>;
}

/** Chooses what a click on a share of the plan takes. */
async function clickPlan(page: Page, x: number, y: number): Promise<void> {
  const box = await page.getByRole('application').boundingBox();
  if (!box) throw new Error('the plan is not shown');
  await page.mouse.click(box.x + box.width * x, box.y + box.height * y);
}

const button = (page: Page, name: string | RegExp): Promise<void> =>
  page.getByRole('button', { name, exact: true }).click();

const VIEWS: readonly View[] = [
  { name: 'start', path: '/' },
  { name: 'devices', path: '/c/cinderbrine/devices' },
  {
    name: 'sets',
    path: '/c/cinderbrine/sets',
    act: async (page) => {
      await page.locator('[data-cell="gaffers-stair:name"]').click();
      await page.keyboard.press('Alt+Enter');
    },
  },
  { name: 'order', path: '/c/cinderbrine/sets/order?level=wreck-reach' },
  { name: 'whole', path: '/c/cinderbrine/sets/whole' },
  { name: 'register', path: '/c/cinderbrine/sets/register/abilities' },
  {
    name: 'layout',
    path: '/c/cinderbrine/layout/furnace-one',
    act: async (page) => {
      await page.keyboard.press('o');
      await page.locator('sv-item-list').getByRole('option', { name: 'furnace hall' }).click();
    },
  },
  {
    name: 'tiles',
    path: '/c/cinderbrine/layout/batch-floor',
    act: async (page) => {
      await page.locator('sv-item-list').getByRole('option').first().click();
    },
  },
  {
    name: 'masks',
    path: '/c/cinderbrine/layout/mould-room',
    act: async (page) => {
      await page.getByText('Picture', { exact: true }).first().click();
      await page.locator('sv-item-list').getByRole('option', { name: /floor/ }).click();
    },
  },
  { name: 'sections', path: '/c/cinderbrine/sections/potash-grotto' },
  { name: 'cells', path: '/c/cinderbrine/cells/low-water', act: (page) => button(page, /Rehearse walk/) },
  { name: 'detail', path: '/c/cinderbrine/detail?piece=piece-sea-stack' },
  {
    name: 'sight',
    path: '/c/cinderbrine/sight/cullet-yard',
    act: (page) => clickPlan(page, 0.35, 0.5),
  },
  { name: 'budget', path: '/c/cinderbrine/budget' },
  { name: 'pack', path: '/c/cinderbrine/pack' },
  {
    name: 'walk',
    path: '/c/cinderbrine/pack/walk/low-water',
    act: async (page) => {
      await button(page, 'Pack and walk');
      await page.locator('sv-walk-lanes .lane').first().click({ timeout: 120000 });
    },
  },
  { name: 'findings', path: '/c/cinderbrine/findings' },
];

test.describe('Pictures of the main views', () => {
  for (const { name, path, act } of VIEWS)
    test(name, async ({ quietPage: page, stravel }) => {
      await stravel.baked();
      // Edges are smoothed as where a graphics card draws: it is known by its name, UNMASKED_RENDERER_WEBGL.
      await page.addInitScript(() => {
        // eslint-disable-next-line @typescript-eslint/unbound-method -- the proxy calls it with its own context
        WebGL2RenderingContext.prototype.getParameter = new Proxy(WebGL2RenderingContext.prototype.getParameter, {
          apply: (told, context: WebGL2RenderingContext, [name]: [number]) =>
            name === 0x9246 ? 'a card' : (told.call(context, name) as unknown),
        });
      });
      await page.goto(`${stravel.address}${path}`);
      if (path !== '/') await giveName(page, 'Odile');
      await page.waitForLoadState('networkidle');
      await act?.(page);
      // A menu's or dialog's movement, and what is drawn in slices, have ended once two looks are the same.
      let last = '';
      await expect(async () => {
        const now = (await page.screenshot()).toString('base64');
        const isStill = now === last;
        last = now;
        expect(isStill).toBe(true);
      }).toPass({ intervals: [700] });
      await page.screenshot({ path: join(FOLDER, `${name}.png`) });
    });
});
