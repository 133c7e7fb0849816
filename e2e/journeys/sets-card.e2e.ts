import { checkAxe } from '../fixtures/check-axe';
import { expect, introduce, test } from '../fixtures/stravel';

test.describe('Levels beside their card', () => {
  test('are filtered by state, and the card of the row that one is on is read and edited', async ({
    quietPage: page,
    stravel,
  }) => {
    await stravel.empty('tidal-gate');
    await introduce(page, stravel.address, '/sets');
    const cell = (level: string, column = 'name') => page.locator(`[data-cell="${level}:${column}"]`);
    await expect(cell('cullet-yard', 'core').getByRole('img')).toHaveAttribute('aria-label', /^triangles: 655 k/, {
      timeout: 20000,
    });
    await page.getByRole('button', { name: /^Over \d/ }).click();
    await expect(cell('cullet-yard')).toBeVisible();
    await expect(cell('sorting-hall')).toHaveCount(0);
    await page.getByRole('button', { name: /^Not known \d/ }).click();
    await expect(cell('tidal-gate')).toBeVisible();
    await expect(cell('cullet-yard')).toHaveCount(0);
    await page.getByPlaceholder('Filter by name, code or text').fill('no level has this');
    await page.getByRole('button', { name: 'Show all levels' }).click();
    await cell('gaffers-stair').click();
    await page.keyboard.press('Alt+Enter');
    const card = page.getByRole('complementary', { name: 'Card of a level' });
    await expect(card.getByRole('heading', { name: /^4 Gaffer.s Stair$/ })).toBeVisible();
    await expect(card).toContainText('draw calls');
    await checkAxe(page);
    // It follows the row.
    await page.keyboard.press('ArrowDown');
    await expect(card.getByRole('heading', { name: '5 Mould Room' })).toBeVisible();
    // Columns that the card leaves no room for are not drawn: the card tells them.
    const shards = card.getByRole('button', { name: /^Edit Shards/ });
    const before = (await shards.textContent())?.trim() ?? '';
    await shards.click();
    const box = card.getByLabel(/^Shards of Mould Room/);
    await box.fill('-3');
    await page.keyboard.press('Enter');
    // What is not valid stays typed, with the reason.
    await expect(card.getByRole('alert')).toContainText('-3');
    await box.fill('41');
    await page.keyboard.press('Enter');
    await expect(shards).toHaveText('41');
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(shards).toHaveText(before);
    await page.reload();
    await expect(card).toBeVisible();
    await card.getByRole('button', { name: 'Close the card' }).click();
    await expect(card).toHaveCount(0);
    // What the card covered is drawn again.
    await expect(cell('cullet-yard', 'field-due')).toBeVisible();
    await cell('cullet-yard').hover();
    await page.getByRole('row').filter({ hasText: 'Cullet Yard' }).locator('.to-card').click();
    await card.getByRole('button', { name: 'Open in another desk' }).click();
    await page.getByRole('menuitem', { name: 'Open in Sight' }).click();
    await expect(page).toHaveURL(/sight\/cullet-yard/);
  });

  test('while rows are selected, their commands take the place of the filter', async ({ quietPage: page, stravel }) => {
    await introduce(page, stravel.address, '/sets');
    await page.getByRole('checkbox', { name: 'Select Sorting Hall' }).check();
    const tools = page.getByRole('toolbar', { name: 'Table tools' });
    await expect(tools).toContainText('1 selected');
    await expect(tools.getByRole('button', { name: 'New level', exact: true })).toHaveCount(0);
    await tools.getByRole('button', { name: 'Clear selection' }).click();
    await expect(tools.getByRole('button', { name: 'New level', exact: true })).toBeVisible();
  });
});
