import type { Page } from '@playwright/test';
import { expect, introduce, test } from '../fixtures/stravel';

const UPDATED = 'Stravel was updated. This page is older and has stopped saving.';

/** From now on the server is one version newer for this page. */
async function meetNewerServer(page: Page): Promise<void> {
  await page.route('**/api/**', async (route) => {
    const response = await route.fetch();
    const model = Number(response.headers()['stravel-model']) + 1;
    await route.fulfill({ response, headers: { ...response.headers(), 'stravel-model': String(model) } });
  });
}

async function setTriangles(page: Page, value: string): Promise<void> {
  await page.getByRole('button', { name: /^Handheld/ }).click();
  const triangles = page.getByLabel('Triangles', { exact: true });
  await triangles.fill(value);
  await triangles.press('Enter');
}

test.describe('Two versions', () => {
  test('a page that is older than its server stops sending, keeps its changes, and sends them once it is loaded anew', async ({
    browser,
    stravel,
  }) => {
    const old = await (await browser.newContext()).newPage();
    const current = await (await browser.newContext()).newPage();
    await introduce(old, stravel.address, '/devices', 'Odile');
    await introduce(current, stravel.address, '/devices', 'Renke');
    await meetNewerServer(old);
    // The answer to the first change tells; what comes after it waits.
    await setTriangles(old, '381000');
    await expect(old.getByRole('alert')).toContainText(UPDATED);
    await setTriangles(old, '382000');
    await expect(old.getByText('1 change kept here')).toBeVisible();
    await expect(current.getByRole('button', { name: /^Handheld.*381/ })).toBeVisible();
    await setTriangles(current, '383000');
    await expect(current.getByText('All changes saved')).toBeVisible();
    // A request may be under way; what comes of it no longer matters.
    await old.unrouteAll({ behavior: 'ignoreErrors' });
    await old.getByRole('button', { name: 'Reload' }).click();
    const dialog = old.getByRole('dialog', { name: 'Conflicts with a newer change' });
    await expect(dialog).toContainText('382000');
    await dialog.getByRole('button', { name: 'Keep mine' }).click();
    await expect(current.getByRole('button', { name: /^Handheld.*382/ })).toBeVisible();
    await expect(old.getByRole('alert')).toHaveCount(0);
  });

  test('a page whose script is gone says so and offers to be loaded anew', async ({ page, stravel }) => {
    await introduce(page, stravel.address, '/devices');
    await page.route(/\.js$/, (route) => route.fulfill({ status: 404, body: '' }));
    await page.keyboard.press('Alt+8');
    await expect(page.getByRole('alert')).toContainText(UPDATED);
    await page.unroute(/\.js$/);
    await page.getByRole('button', { name: 'Reload' }).click();
    await expect(page.getByText('All changes saved')).toBeVisible();
  });
});
