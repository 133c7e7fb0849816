import { readFileSync } from 'node:fs';
import { checkAxe } from '../fixtures/check-axe';
import { expect, introduce, test } from '../fixtures/stravel';
import { openView } from '../pages/sets-table';

test.describe('Many cells at once', () => {
  test('a pasted block is shown before it is written, what is refused says why, and one undo takes it back', async ({
    quietPage: page,
    stravel,
    context,
  }) => {
    await context.grantPermissions(['clipboard-read', 'clipboard-write']);
    await introduce(page, stravel.address, '/sets');
    const cell = (level: string, field: string) =>
      page.getByRole('row').filter({ hasText: level }).locator(`[data-cell$=":field-${field}"]`);
    const before = await cell('Sorting Hall', 'shards').textContent();
    await page.evaluate(() => navigator.clipboard.writeText('41\tyes\n42\tperhaps\n'));
    await cell('Sorting Hall', 'shards').click();
    await page.keyboard.press('Control+v');
    const dialog = page.getByRole('dialog', { name: 'Paste' });
    await expect(dialog).toContainText('“perhaps” is neither yes nor no.');
    await expect(dialog).toContainText('1 refused');
    await checkAxe(page);
    await dialog.getByRole('button', { name: /^Write/ }).click();
    await expect(dialog).toHaveCount(0);
    await expect(cell('Sorting Hall', 'shards')).toHaveText('41');
    await expect(cell('Furnace One', 'shards')).toHaveText('42');
    await page.keyboard.press('Shift+ArrowDown');
    await page.keyboard.press('Control+Enter');
    await page.getByRole('dialog', { name: 'Fill down' }).getByRole('button', { name: 'Write 1 cell' }).click();
    await expect(cell('Furnace One', 'shards')).toHaveText('41');
    await page.keyboard.press('Control+c');
    expect(await page.evaluate(() => navigator.clipboard.readText())).toBe('41\n41');
    await page.getByRole('button', { name: 'Undo' }).click();
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(cell('Sorting Hall', 'shards')).toHaveText(before ?? '');
    await expect(page.getByText('All changes saved')).toBeVisible();
  });

  test('a table goes out as CSV, is changed outside, and comes in with every row counted first', async ({
    quietPage: page,
    stravel,
  }) => {
    await introduce(page, stravel.address, '/sets/register/bells');
    await page.getByRole('button', { name: 'CSV' }).click();
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('menuitem', { name: 'Export CSV' }).click(),
    ]);
    expect(download.suggestedFilename()).toBe('Bells.csv');
    const text = readFileSync(await download.path(), 'utf8');
    expect(text).toContain('Shift bell,220');
    const changed = `${text.replace('220', '9000').replace('146.5', '150')}`;
    await page.getByRole('button', { name: 'CSV' }).click();
    await page.getByRole('menuitem', { name: 'Import CSV…' }).click();
    const dialog = page.getByRole('dialog', { name: 'Import a CSV file' });
    const file = dialog.getByLabel('CSV file');
    const give = (content: string | Buffer) =>
      file.setInputFiles({ name: 'bells.csv', mimeType: 'text/csv', buffer: Buffer.from(content) });
    await give(Buffer.from([0x61, 0xe4, 0x0a]));
    await expect(dialog.getByRole('alert')).toContainText('byte 2 is not UTF-8');
    await give('Entry,Pitch\n"open,2\n');
    await expect(dialog.getByRole('alert')).toContainText('row 2');
    await give(changed);
    await expect(dialog.getByText('9000 is above 4000.')).toBeVisible();
    await expect(dialog).toContainText('0 new · 1 changed · 1 unchanged · 1 refused');
    await dialog.getByLabel('Match rows by').selectOption('name');
    await expect(dialog).toContainText('0 new · 1 changed · 1 unchanged · 1 refused');
    await checkAxe(page);
    await dialog.getByRole('button', { name: 'Import 1 row' }).click();
    await expect(dialog).toHaveCount(0);
    await expect(page.getByRole('row').filter({ hasText: 'Tide bell' })).toContainText('150');
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByRole('row').filter({ hasText: 'Tide bell' })).toContainText('146.5');
    await expect(page.getByText('All changes saved')).toBeVisible();
  });
});

test.describe('Columns of a file', () => {
  test('become fields of the type of their cells, in one edit with the rows', async ({ quietPage: page, stravel }) => {
    await introduce(page, stravel.address, '/sets/register/bells');
    await page.getByRole('button', { name: 'CSV' }).click();
    await page.getByRole('menuitem', { name: 'Import CSV…' }).click();
    const dialog = page.getByRole('dialog', { name: 'Import a CSV file' });
    await dialog.getByLabel('CSV file').setInputFiles({
      name: 'bells.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from('Entry,Cast on,Rung,Maker\nTide bell,2027-03-01,yes,Hult\nNew bell,2027-04-02,no,Orm\n'),
    });
    await dialog.getByLabel('Cast on goes into').selectOption({ label: 'a new field' });
    await expect(dialog.getByText('New: Cast on (date)')).toBeVisible();
    await dialog.getByRole('button', { name: 'Make fields of the other 2 columns' }).click();
    await expect(dialog.getByText('New: Cast on (date), Rung (yes/no), Maker (text)')).toBeVisible();
    await dialog.getByLabel('Maker goes into').selectOption({ label: 'nothing' });
    await checkAxe(page);
    await dialog.getByRole('button', { name: 'Import 2 rows and 2 fields' }).click();
    await expect(dialog).toHaveCount(0);
    await expect(page.getByRole('row').filter({ hasText: 'Tide bell' })).toContainText('2027-03-01');
    await expect(page.getByRole('row').filter({ hasText: 'New bell' })).toContainText('no');
    await expect(page.getByRole('button', { name: 'Field Maker' })).toHaveCount(0);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByRole('button', { name: 'Field Cast on' })).toHaveCount(0);
    await expect(page.getByRole('row').filter({ hasText: 'New bell' })).toHaveCount(0);
    await expect(page.getByText('All changes saved')).toBeVisible();
  });
});

test.describe('Views', () => {
  test('show only what meets the conditions, in an order of one’s own, and are kept under a name', async ({
    quietPage: page,
    stravel,
  }) => {
    await introduce(page, stravel.address, '/sets');
    await openView(page);
    await page.getByRole('button', { name: 'Add a condition' }).click();
    await page.getByLabel('Column of condition 1').selectOption({ label: 'Shards' });
    await page.getByLabel('Test of condition 1').selectOption('at least');
    await page.getByLabel('Value of condition 1').fill('14');
    await page.getByRole('button', { name: 'Add sort column' }).click();
    await page.getByLabel('Sort column 1', { exact: true }).selectOption({ label: 'Shards' });
    await page.getByLabel('Sort direction 1', { exact: true }).click();
    await page.getByRole('checkbox', { name: 'Note' }).uncheck();
    const shards = page.locator('[data-cell$=":field-shards"]');
    const amountsNow = async () => (await shards.allTextContents()).map(Number);
    await expect.poll(async () => Math.min(...(await amountsNow()))).toBeGreaterThanOrEqual(14);
    const amounts = await amountsNow();
    expect(amounts).toEqual([...amounts].sort((a, b) => b - a));
    await expect(page.getByRole('button', { name: 'Field Note' })).toHaveCount(0);
    await checkAxe(page);
    await page.getByLabel('Name of the view').fill('Rich levels');
    await page.getByRole('button', { name: 'Save view' }).click();
    await page.getByRole('button', { name: 'Clear' }).click();
    await expect(page.getByRole('button', { name: 'Field Note' })).toBeVisible();
    await expect(page.getByText('All changes saved')).toBeVisible();
    await page.reload();
    await openView(page);
    await page.getByLabel('Saved views').selectOption('Rich levels');
    await expect.poll(amountsNow).toEqual(amounts);
    await page.getByRole('button', { name: 'Delete view' }).click();
    await expect(page.getByText('All changes saved')).toBeVisible();
  });
});
