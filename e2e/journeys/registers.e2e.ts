import { checkAxe } from '../fixtures/check-axe';
import { expect, introduce, test } from '../fixtures/stravel';

test.describe('Registers', () => {
  test('are made, filled in typed fields, linked from levels and kept over a reload', async ({
    quietPage: page,
    stravel,
  }) => {
    await introduce(page, stravel.address, '/sets');
    await page.getByRole('button', { name: 'Registers' }).click();
    await page.getByRole('menuitem', { name: 'New register' }).click();
    const name = page.getByLabel('Name of the register');
    await name.fill('Winds');
    await name.press('Enter');
    await expect(page.getByRole('link', { name: 'Winds' })).toBeVisible();
    await page.getByRole('button', { name: 'Fields…' }).click();
    await page.getByRole('button', { name: 'New field' }).click();
    const dialog = page.getByRole('dialog', { name: 'New field' });
    // Opening, the dialog puts the focus there; what is typed before could land elsewhere.
    await expect(dialog.getByLabel('Name', { exact: true })).toBeFocused();
    await dialog.getByLabel('Name', { exact: true }).fill('Strength');
    await dialog.getByLabel('Type').selectOption('whole number');
    await dialog.getByLabel('Max', { exact: true }).fill('12');
    await dialog.getByRole('button', { name: 'Add field' }).click();
    await page.getByRole('dialog', { name: 'Fields' }).getByRole('button', { name: 'Close' }).click();
    await page.getByRole('button', { name: 'New entry' }).click();
    await page.getByLabel('Entry of New entry').fill('Salt wind');
    await page.keyboard.press('Enter');
    const cell = page.getByRole('row').filter({ hasText: 'Salt wind' }).locator('.value').nth(1);
    await cell.dblclick();
    const editor = page.getByLabel('Strength of Salt wind');
    await editor.fill('13');
    await editor.press('Enter');
    await expect(page.getByRole('alert')).toHaveText('13 is above 12.');
    await editor.fill('7');
    await editor.press('Enter');
    await expect(cell).toHaveText('7');
    await expect(page.getByText('All changes saved')).toBeVisible();
    await page.reload();
    await expect(page.getByRole('row').filter({ hasText: 'Salt wind' })).toContainText('7');
    await checkAxe(page);
  });

  test('say where an entry is used, and delete it only with a choice for its users', async ({
    quietPage: page,
    stravel,
  }) => {
    await introduce(page, stravel.address, '/sets/register/abilities');
    await page.getByRole('button', { name: 'More for Ring' }).click();
    await page.getByRole('menuitem', { name: 'Where it is used…' }).click();
    await expect(page.getByRole('dialog')).toContainText('Ash Gallery');
    await page.getByRole('button', { name: 'Close' }).click();
    await page.getByRole('button', { name: 'More for Ring' }).click();
    await page.getByRole('menuitem', { name: /^Delete/ }).click();
    const dialog = page.getByRole('dialog', { name: 'Delete Ring' });
    await expect(dialog.getByRole('button', { name: 'Replace and delete' })).toBeDisabled();
    await dialog.getByLabel('Replace with').selectOption({ label: 'Douse' });
    await dialog.getByRole('button', { name: 'Replace and delete' }).click();
    await expect(page.getByRole('gridcell', { name: 'Ring', exact: true })).toHaveCount(0);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByRole('gridcell', { name: 'Ring', exact: true })).toBeVisible();
    await expect(page.getByText('All changes saved')).toBeVisible();
  });
});

test.describe('Fields', () => {
  test('show what a change does to every value before it is made, and undo brings all back', async ({
    quietPage: page,
    stravel,
  }) => {
    await introduce(page, stravel.address, '/sets');
    const shards = page.getByRole('row').filter({ hasText: 'Furnace One' }).locator('[data-cell$=":field-shards"]');
    const before = await shards.textContent();
    await page.getByRole('button', { name: 'Field Shards' }).click();
    const dialog = page.getByRole('dialog', { name: 'Field Shards' });
    await expect(dialog.getByLabel('Name', { exact: true })).toBeFocused();
    await dialog.getByLabel('Max', { exact: true }).fill('(');
    await expect(dialog.getByRole('button', { name: 'Change field' })).toBeDisabled();
    await dialog.getByLabel('Max', { exact: true }).fill('10');
    await expect(dialog.getByText(/cannot be converted: they stay/)).toBeVisible();
    await dialog.getByLabel('Max', { exact: true }).fill('');
    await dialog.getByLabel('Type').selectOption('text');
    await expect(dialog.getByText('24 are converted')).toBeVisible();
    await checkAxe(page);
    await dialog.getByRole('button', { name: 'Change field' }).click();
    await expect(dialog).toHaveCount(0);
    await shards.dblclick();
    await page.getByLabel('Shards of Furnace One').fill('a lot');
    await page.keyboard.press('Enter');
    await expect(shards).toHaveText('a lot');
    await page.getByRole('button', { name: 'Undo' }).click();
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(shards).toHaveText(before ?? '');
    await shards.dblclick();
    await page.getByLabel('Shards of Furnace One').fill('a lot');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('alert')).toHaveText('“a lot” is not a number.');
    await page.keyboard.press('Escape');
    await expect(page.getByText('All changes saved')).toBeVisible();
  });

  test('link levels by name as it is typed, and refuse a name that is none', async ({ quietPage: page, stravel }) => {
    await introduce(page, stravel.address, '/sets');
    const tide = page.locator('[data-cell="gaffers-stair:field-tide"]');
    // Only columns in sight are drawn.
    await page.locator('cdk-virtual-scroll-viewport').evaluate((element) => element.scrollTo({ left: 300 }));
    await tide.dblclick();
    const editor = page.getByLabel(/^Tide of/);
    await editor.fill('Neap');
    await editor.press('Enter');
    await expect(page.getByRole('alert')).toContainText('“Neap” is not an entry');
    await editor.fill('flood');
    await editor.press('Enter');
    await expect(tide).toHaveText('Flood');
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(tide).toHaveText('No tide');
    await expect(page.getByText('All changes saved')).toBeVisible();
  });
});
