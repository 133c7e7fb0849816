import type { Locator, Page } from '@playwright/test';
import { checkAxe } from '../fixtures/check-axe';
import { expect, introduce, test } from '../fixtures/stravel';

interface Size {
  readonly width: number;
  readonly height: number;
}

async function boxOf(one: Locator): Promise<Size & { readonly x: number; readonly y: number }> {
  const box = await one.boundingBox();
  if (!box) throw new Error('it is not shown');
  return box;
}

const plate = (page: Page) => page.locator('.plate');
const model = (page: Page) => page.getByRole('img', { name: 'Model of the level' });

test.describe('Pages that fit', () => {
  test('give the plate its room, fold their columns by keys, and keep that over a reload', async ({
    quietPage: page,
    stravel,
  }) => {
    await introduce(page, stravel.address, '/layout/sorting-hall');
    await expect(page.getByText(/selected of 322/)).toBeVisible();
    const open = await boxOf(plate(page));
    expect(open.width).toBeGreaterThanOrEqual(700);
    expect(open.height).toBeGreaterThanOrEqual(570);
    // Nothing moves when another tool is taken.
    for (const key of ['b', 'v', 'k', 't', 'x', 'm', 'r']) {
      await page.keyboard.press(key);
      expect(await boxOf(plate(page))).toEqual(open);
      expect((await boxOf(page.getByRole('toolbar', { name: 'Layout tools' }))).height).toBe(36);
    }
    await page.keyboard.press('s');
    await page.keyboard.press('Backslash');
    await expect(page.getByRole('complementary', { name: 'Level' })).toHaveCount(0);
    await page.keyboard.press('Shift+Backslash');
    await expect(page.getByRole('complementary', { name: 'Strata, groups, contents' })).toHaveCount(0);
    expect((await boxOf(plate(page))).width).toBeGreaterThanOrEqual(1150);
    await page.reload();
    await expect(page.getByRole('button', { name: 'Strata, groups, contents' })).toBeVisible();
    expect((await boxOf(plate(page))).width).toBeGreaterThanOrEqual(1150);
    await page.getByRole('button', { name: 'Level', exact: true }).click();
    await expect(page.getByRole('complementary', { name: 'Level' })).toContainText('Against the device');
    // Another desk has folds of its own.
    await page.keyboard.press('Alt+6');
    await expect(page.getByRole('complementary', { name: 'Strata' })).toBeVisible();
  });

  test('lay the model over the plan: it is moved, resized and swapped; a wide page has them side by side', async ({
    quietPage: page,
    stravel,
  }) => {
    await introduce(page, stravel.address, '/layout/sorting-hall');
    const plan = page.getByRole('application');
    const before = await boxOf(model(page));
    expect([before.width, before.height]).toEqual([280, 190]);
    const grip = page.getByRole('button', { name: 'Move the smaller view' });
    const { x, y } = await boxOf(grip);
    await page.mouse.move(x + 60, y + 10);
    await page.mouse.down();
    await page.mouse.move(x - 40, y - 50);
    await page.mouse.up();
    const moved = await boxOf(model(page));
    expect([moved.x, moved.y]).toEqual([before.x - 100, before.y - 60]);
    await page.getByRole('button', { name: 'Resize the smaller view' }).focus();
    await page.keyboard.press('ArrowLeft');
    await expect.poll(async () => (await boxOf(model(page))).width).toBe(288);
    await page.keyboard.press('o');
    await expect.poll(async () => (await boxOf(plan)).width).toBe(288);
    await page.reload();
    await expect.poll(async () => (await boxOf(plan)).width).toBe(288);
    await page.keyboard.press('o');
    // Shown alone it fills the plate.
    await page.getByRole('button', { name: 'Plan', exact: true }).click();
    await expect(model(page)).toBeHidden();
    await page.getByRole('button', { name: 'Both', exact: true }).click();
    await page.setViewportSize({ width: 1640, height: 900 });
    await expect(page.getByRole('separator', { name: 'Between plan and model' })).toBeVisible();
    const side = await boxOf(model(page));
    expect(side.x).toBeGreaterThan((await boxOf(plan)).x + (await boxOf(plan)).width - 2);
  });

  test('are gone through by keys: a skip link, and parts one after the other', async ({ quietPage: page, stravel }) => {
    await introduce(page, stravel.address, '/sight/sorting-hall');
    await expect(page.getByRole('heading', { name: 'Worst pockets' })).toBeVisible({ timeout: 20000 });
    const focused = (): Promise<string> =>
      page.evaluate(() => document.activeElement?.closest('[data-region]')?.tagName.toLowerCase() ?? 'none');
    await page.getByRole('button', { name: 'Skip to the work' }).focus();
    await page.keyboard.press('Enter');
    expect(await focused()).toBe('div');
    const parts: string[] = [];
    for (let i = 0; i < 7; i++) {
      await page.keyboard.press('F6');
      parts.push(await focused());
    }
    expect(parts).toEqual(['aside', 'sv-plate', 'aside', 'footer', 'header', 'sv-seam', 'div']);
    await page.keyboard.press('Shift+F6');
    expect(await focused()).toBe('sv-seam');
  });

  test('choose heights on the rod, by keys too', async ({ quietPage: page, stravel }) => {
    await introduce(page, stravel.address, '/layout/gaffers-stair');
    const top = page.getByRole('slider', { name: 'Highest height shown' });
    await expect(page.locator('footer')).toContainText('storey 1, -0.5 to 2.5 m');
    await top.focus();
    await page.keyboard.press('ArrowUp');
    await expect(top).not.toHaveAttribute('aria-valuenow', '2.5');
    await page.keyboard.press('.');
    await expect(page.locator('footer')).toContainText('storey 2');
    await page.getByRole('button', { name: 'Shown' }).click();
    const lowest = page.getByLabel('Lowest height shown, metres');
    await lowest.fill('4');
    await lowest.press('Enter');
    await page.keyboard.press('Escape');
    await expect(page.getByRole('slider', { name: 'Lowest height shown' })).toHaveAttribute('aria-valuenow', '4');
  });

  test('have one line of tools and drawers on a small page, and no fault that axe can find', async ({
    quietPage: page,
    stravel,
  }) => {
    // The second is a page of 1280 pixels at a zoom of 150 %.
    for (const [width, height] of [
      [1024, 700],
      [853, 533],
    ] as const) {
      await page.setViewportSize({ width, height });
      await page.goto(`${stravel.address}/c/cinderbrine/layout/sorting-hall`);
      await page.keyboard.press('b');
      const tools = page.getByRole('toolbar', { name: 'Layout tools' });
      await expect(tools).toBeVisible();
      expect(await tools.evaluate((element) => element.scrollWidth <= element.clientWidth)).toBe(true);
      const line = await boxOf(tools);
      expect(line.x + line.width).toBeLessThanOrEqual(width);
    }
    await page.setViewportSize({ width: 1024, height: 700 });
    for (const path of ['/layout/sorting-hall', '/cells/low-water', '/sight/cullet-yard', '/sections/potash-grotto']) {
      await (path.startsWith('/layout')
        ? introduce(page, stravel.address, path)
        : page.goto(`${stravel.address}/c/cinderbrine${path}`));
      const tools = page.getByRole('toolbar').first();
      await expect(tools).toBeVisible();
      const line = await boxOf(tools);
      expect([line.height, line.x + line.width <= 1024]).toEqual([36, true]);
      expect(await tools.evaluate((element) => element.scrollWidth <= element.clientWidth)).toBe(true);
      await expect(page.getByRole('complementary')).toHaveCount(0);
      await page.keyboard.press('Backslash');
      await expect(page.getByRole('complementary')).toHaveCount(1);
    }
    await checkAxe(page);
  });
});
