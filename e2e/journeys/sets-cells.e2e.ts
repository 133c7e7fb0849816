import { expect, introduce, test } from '../fixtures/stravel';

test.describe('Cells of the Sets desk', () => {
  test('take every type of field by keys alone, and undo each', async ({ quietPage: page, stravel }) => {
    await introduce(page, stravel.address);
    const row = page.getByRole('row').filter({ hasText: 'Batch Floor' });
    const cell = (column: string) => row.locator(`[data-cell$=":${column}"]`);
    await cell('name').click();
    await page.keyboard.press('ArrowRight');
    await page.keyboard.press('ArrowRight');
    await page.keyboard.press('ArrowRight');
    await page.keyboard.press('ArrowRight');
    await page.keyboard.press('ArrowRight');
    await page.keyboard.press('ArrowRight');
    await expect(cell('field-mood')).toBeFocused();

    await page.keyboard.press('Enter');
    await page.getByLabel('Mood of Batch Floor').selectOption('ember');
    await page.keyboard.press('Enter');
    await expect(cell('field-mood')).toHaveText('ember');

    const before = await cell('field-checked').textContent();
    await cell('field-checked').dblclick();
    await page.getByLabel('Checked of Batch Floor').selectOption(before?.trim() === 'yes' ? 'no' : 'yes');
    await page.keyboard.press('Enter');
    await expect(cell('field-checked')).toHaveText(before?.trim() === 'yes' ? 'no' : 'yes');

    await cell('field-due').dblclick();
    await page.getByLabel('Due of Batch Floor').fill('2027-12-24');
    await page.keyboard.press('Enter');
    await expect(cell('field-due')).toHaveText('2027-12-24');

    await page.keyboard.press('Control+z');
    await expect(cell('field-due')).not.toHaveText('2027-12-24');
    await page.keyboard.press('Control+z');
    await expect(cell('field-checked')).toHaveText(before?.trim() ?? '');
    await page.keyboard.press('Control+Shift+z');
    await expect(cell('field-checked')).not.toHaveText(before?.trim() ?? '');
    await expect(page.getByText('All changes saved')).toBeVisible();
  });

  test('leave what was typed at Escape', async ({ quietPage: page, stravel }) => {
    await introduce(page, stravel.address);
    const cell = page.getByRole('gridcell', { name: 'Mould Room', exact: true });
    await cell.dblclick();
    await page.getByLabel('Level of Mould Room').fill('High Water');
    await page.keyboard.press('Escape');
    await expect(cell).toBeVisible();
    await expect(page.getByText('All changes saved')).toBeVisible();
  });

  test('nest sets: new inside, renamed, filled, binned with its levels and put back', async ({
    quietPage: page,
    stravel,
  }) => {
    await introduce(page, stravel.address);
    await page.getByRole('button', { name: 'More for The Works' }).click();
    await page.getByRole('menuitem', { name: 'New set inside' }).click();
    const editor = page.getByRole('textbox', { name: /^Name of/ });
    await editor.fill('Night Shift');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('gridcell', { name: /^(Fold )?Night Shift/ })).toBeVisible();
    await page.getByRole('button', { name: 'More for Night Shift' }).click();
    await page.getByRole('menuitem', { name: 'New level here' }).click();
    await page.keyboard.press('Escape');
    await expect(page.getByLabel(/^Level of/)).toHaveCount(0);
    await expect(page.getByRole('gridcell', { name: /^Fold Night Shift.*1 level/ })).toBeVisible();
    await page.getByRole('button', { name: 'More for Night Shift' }).click();
    await page.getByRole('menuitem', { name: /To the bin/ }).click();
    await expect(page.getByRole('gridcell', { name: /^(Fold )?Night Shift/ })).toHaveCount(0);
    await page.keyboard.press('Control+z');
    await expect(page.getByRole('gridcell', { name: /^Fold Night Shift.*1 level/ })).toBeVisible();
  });

  test('filter by what is typed and by purpose', async ({ quietPage: page, stravel }) => {
    await introduce(page, stravel.address);
    await page.getByLabel('Filter levels').fill('tunnels');
    await expect(page.getByText(/^1 of \d+ levels shown/)).toBeVisible();
    await expect(page.getByRole('gridcell', { name: 'Kiln Tunnels', exact: true })).toBeVisible();
    await page.getByLabel('Filter levels').fill('');
    await page.getByRole('group', { name: 'Purpose' }).getByRole('button', { name: 'test', exact: true }).click();
    await expect(page.getByText(/^3 of \d+ levels shown/)).toBeVisible();
  });
});

test.describe('A conflict', () => {
  test('keeps theirs when one chooses so, and the page agrees with the server after a reload', async ({
    browser,
    stravel,
  }) => {
    const first = await (await browser.newContext()).newPage();
    const second = await (await browser.newContext()).newPage();
    await introduce(first, stravel.address, '/sets', 'Odile');
    await introduce(second, stravel.address, '/sets', 'Renke');
    const shards = (page: typeof first) =>
      page.getByRole('row').filter({ hasText: 'Furnace One' }).locator('[data-cell$=":field-shards"]');
    const edit = async (page: typeof first, value: string) => {
      await shards(page).dblclick();
      await page.getByLabel('Shards of Furnace One').fill(value);
      await page.keyboard.press('Enter');
    };
    await second.context().setOffline(true);
    await edit(second, '70');
    await edit(first, '60');
    await expect(first.getByText('All changes saved')).toBeVisible();
    await second.context().setOffline(false);
    const dialog = second.getByRole('dialog', { name: 'Conflicts with a newer change' });
    await expect(dialog).toBeVisible();
    await dialog.getByRole('button', { name: 'Keep newer' }).click();
    await expect(dialog).toHaveCount(0);
    await expect(shards(second)).toHaveText('60');
    await second.reload();
    await expect(shards(second)).toHaveText('60');
  });
});
