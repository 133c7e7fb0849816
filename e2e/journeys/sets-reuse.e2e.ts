import { checkAxe } from '../fixtures/check-axe';
import { expect, introduce, test } from '../fixtures/stravel';

test.describe('Using levels again', () => {
  test('a stratum is shared, copied or left out as one chooses, and the dialog says beforehand who shares what', async ({
    quietPage: page,
    stravel,
  }) => {
    await introduce(page, stravel.address);
    await page.getByPlaceholder('Filter by name, code or text').fill('salt');
    await page.getByRole('gridcell', { name: 'Salt Road', exact: true }).click();
    await page.keyboard.press('Control+d');
    const dialog = page.getByRole('dialog', { name: 'Duplicate Salt Road' });
    await expect(dialog).toContainText('Nothing will be shared');
    await dialog.getByLabel('Name').fill('Salt Lane');
    await dialog.getByRole('button', { name: 'share Structure' }).click();
    await dialog.getByRole('button', { name: 'leave out Dressing' }).click();
    await expect(dialog.getByText('Structure: Salt Road, Salt Lane; no level owns it alone any more')).toBeVisible();
    await checkAxe(page);
    await dialog.getByRole('button', { name: 'Duplicate', exact: true }).click();
    await expect(page.getByRole('gridcell', { name: 'Salt Lane', exact: true })).toBeFocused();
    await expect(page.getByText('All changes saved')).toBeVisible();
    await page.getByRole('button', { name: 'More for Salt Lane' }).click();
    await page.getByRole('menuitem', { name: 'Open in Layout' }).click();
    const stack = page.getByRole('list', { name: /strata/i });
    await expect(stack).toContainText('Structure');
    await expect(stack).not.toContainText('Dressing');
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByText('All changes saved')).toBeVisible();
  });

  test('a level is made from a template into a set of one’s choice', async ({ quietPage: page, stravel }) => {
    await introduce(page, stravel.address);
    await page.getByRole('button', { name: 'More ways to make a level' }).click();
    await page.getByRole('menuitem', { name: 'From a template…' }).click();
    const dialog = page.getByRole('dialog', { name: 'New level from a template' });
    await expect(dialog.getByRole('button', { name: 'Create level' })).toBeDisabled();
    await dialog.getByLabel('Template').selectOption({ label: 'Weighbridge' });
    await dialog.getByLabel('Set', { exact: true }).selectOption({ label: 'The Works › Tally' });
    await dialog.getByLabel('Name').fill('Toll House');
    await dialog.getByRole('button', { name: 'Create level' }).click();
    await expect(page.getByRole('gridcell', { name: 'Toll House', exact: true })).toBeFocused();
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByRole('gridcell', { name: 'Toll House', exact: true })).toHaveCount(0);
    await expect(page.getByText('All changes saved')).toBeVisible();
  });

  test('its history tells who did what, and leads back to any of it in one step that can be undone', async ({
    quietPage: page,
    stravel,
  }) => {
    await introduce(page, stravel.address, '/sets', 'Historian');
    const row = page.getByRole('row').filter({ hasText: 'Batch Floor' });
    const shards = row.locator('[data-cell$=":field-shards"]');
    const before = (await shards.textContent()) ?? '';
    for (const amount of ['33', '34']) {
      await shards.dblclick();
      await page.getByLabel('Shards of Batch Floor').fill(amount);
      await page.keyboard.press('Enter');
      await expect(shards).toHaveText(amount);
    }
    await page.getByRole('button', { name: 'More for Batch Floor' }).click();
    await page.getByRole('menuitem', { name: 'History…' }).click();
    const card = page.getByRole('complementary', { name: 'Card of a level' });
    await expect(card.getByRole('heading', { name: 'History of Batch Floor' })).toBeVisible();
    const changes = card.getByRole('option');
    await expect(changes.first()).toContainText('Historian · current');
    await expect(card).toContainText('33 → 34');
    await expect(card.getByRole('button', { name: 'Go back to this' })).toBeDisabled();
    await checkAxe(page);
    await changes.nth(1).click();
    await expect(card).toContainText(`${before} → 33`);
    await card.getByRole('button', { name: 'Go back to before this' }).click();
    await expect(card.getByRole('heading', { name: '6 Batch Floor' })).toBeVisible();
    await card.getByRole('button', { name: 'Close the card' }).click();
    // The table was scrolled to the cell that one stands on, as the card left it less room.
    await page.locator('cdk-virtual-scroll-viewport').evaluate((element) => element.scrollTo({ left: 0 }));
    await expect(shards).toHaveText(before);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(shards).toHaveText('34');
    await page.getByRole('button', { name: 'Redo' }).click();
    await expect(shards).toHaveText(before);
    await expect(page.getByText('All changes saved')).toBeVisible();
  });
});
