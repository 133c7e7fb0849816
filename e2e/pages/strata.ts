import { expect, type Page } from '@playwright/test';

/** Makes a stratum in the level that is open. */
export async function newStratum(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Add a stratum' }).click();
  await page.getByRole('menuitem', { name: 'New stratum' }).click();
  await expect(page.getByRole('menu')).toHaveCount(0);
}

/** Takes a piece or an assembly of the kits in hand. */
export async function takePiece(page: Page, name: RegExp): Promise<void> {
  const cards = page.getByRole('listbox', { name: /pieces of the kits/ });
  if (!(await cards.isVisible())) await page.getByRole('button', { name: 'Kits' }).click();
  await cards.getByRole('option', { name }).first().click();
}

/** Leaves a level as it was for the tests that come after. */
export async function deleteStratum(page: Page, name: string): Promise<void> {
  await page.getByRole('button', { name: `What to do with ${name}` }).click();
  await page.getByRole('menuitem', { name: 'Delete…' }).click();
  await expect(page.locator('[role=dialog] :focus')).toHaveCount(1);
  // Until the edit is on its way all still counts as saved.
  const kept = page.waitForResponse(
    (response) => response.request().method() === 'POST' && response.url().endsWith('/edits') && response.ok(),
  );
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^Delete/ })
    .click();
  await expect(page.getByRole('button', { name: `What to do with ${name}` })).toHaveCount(0);
  await kept;
  await expect(page.getByText('All changes saved')).toBeVisible();
  await page.reload();
  await expect(page.getByRole('button', { name: 'Add a stratum' })).toBeVisible();
  await expect(page.getByRole('button', { name: `What to do with ${name}` })).toHaveCount(0);
}
