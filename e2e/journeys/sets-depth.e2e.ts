import { checkAxe } from '../fixtures/check-axe';
import { expect, introduce, test } from '../fixtures/stravel';
import { closeView, openView } from '../pages/sets-table';

const PNG = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);

test.describe('Many levels', () => {
  test('are changed together with what would become of each shown first', async ({ quietPage: page, stravel }) => {
    await introduce(page, stravel.address);
    const shards = (level: string) =>
      page.getByRole('row').filter({ hasText: level }).locator('[data-cell$=":field-shards"]');
    const before = Number(await shards('Sorting Hall').textContent());
    for (const name of ['Sorting Hall', "Gaffer's Stair"]) await page.getByLabel(`Select ${name}`).check();
    await page.getByRole('button', { name: 'Change…' }).click();
    const dialog = page.getByRole('dialog', { name: 'Change 2 levels' });
    await dialog.getByLabel('Field', { exact: true }).selectOption({ label: 'Shards' });
    await dialog.getByLabel('What is done').selectOption('add to');
    await dialog.getByLabel('Value', { exact: true }).fill('95');
    await expect(dialog).toContainText('2 refused');
    await expect(dialog.getByRole('button', { name: 'Change 0 values' })).toBeDisabled();
    await dialog.getByLabel('Value', { exact: true }).fill('5');
    await expect(dialog).toContainText('2 change');
    await checkAxe(page);
    await dialog.getByRole('button', { name: 'Change 2 values' }).click();
    await expect(shards('Sorting Hall')).toHaveText(String(before + 5));
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(shards('Sorting Hall')).toHaveText(String(before));
    await page.getByRole('button', { name: 'Clear selection' }).click();
    await expect(page.getByText('All changes saved')).toBeVisible();
  });

  test('are gathered by a choice, with columns frozen, sized and moved, and the view is kept', async ({
    quietPage: page,
    stravel,
  }) => {
    await introduce(page, stravel.address);
    await openView(page);
    await page.getByLabel('Group by').selectOption({ label: 'Mood' });
    await page.getByLabel('Frozen columns').selectOption('1');
    const width = page.getByLabel('Width of Note, pixels');
    await width.fill('600');
    await width.press('Tab');
    await page.getByRole('button', { name: 'Due earlier' }).click();
    await page.getByLabel('Name of the view').fill('By mood');
    await page.getByRole('button', { name: 'Save view' }).click();
    await checkAxe(page);
    await expect(page.getByText('All changes saved')).toBeVisible();
    await page.reload();
    await openView(page);
    await page.getByLabel('Saved views').selectOption('By mood');
    await closeView(page, 'By mood');
    await expect(page.getByRole('button', { name: 'Fold dark' })).toBeVisible();
    const body = page.locator('cdk-virtual-scroll-viewport');
    const name = page.getByRole('gridcell', { name: 'Cullet Yard', exact: true });
    const left = (await name.boundingBox())?.x ?? 0;
    await body.evaluate((element) => element.scrollTo({ left: 900 }));
    await expect(
      page.getByRole('row').filter({ hasText: 'Cullet Yard' }).locator('[data-cell$=":field-abilities"]'),
    ).toBeVisible();
    expect((await name.boundingBox())?.x).toBeCloseTo(left, 0);
    await page.getByRole('button', { name: 'Fold dark' }).click();
    await expect(name).toHaveCount(0);
    await page.getByRole('button', { name: 'Unfold dark' }).click();
    // Keys lead to a column that is out of sight.
    await name.click();
    for (let i = 0; i < 14; i++) await page.keyboard.press('ArrowRight');
    await expect(page.locator('[data-cell="cullet-yard:field-pickups"]')).toBeFocused();
    await openView(page, 'By mood');
    await page.getByRole('button', { name: 'Delete view' }).click();
    await page.getByRole('button', { name: 'Clear', exact: true }).click();
    await expect(page.getByText('All changes saved')).toBeVisible();
  });

  test('get their pictures from their models or from files; what cannot be says why', async ({
    quietPage: page,
    stravel,
  }) => {
    await stravel.empty('tidal-gate');
    await introduce(page, stravel.address);
    for (const name of ['Sorting Hall', 'Gaffer']) await page.getByLabel(`Select ${name}`).check();
    // The level with nothing in it stands a little further down.
    const table = page.locator('cdk-virtual-scroll-viewport');
    await table.evaluate((element) => element.scrollTo({ top: 130 }));
    await page.getByLabel('Select Tidal Gate').check();
    await page.getByRole('button', { name: 'Picture', exact: true }).click();
    await page.getByRole('menuitem', { name: 'From the model' }).click();
    await expect(
      page.getByRole('alert').filter({ hasText: 'No picture of Tidal Gate: there is nothing in it to be seen' }),
    ).toBeVisible({ timeout: 60000 });
    const picture = (level: string) => page.getByRole('img', { name: `Picture of ${level}` });
    const cell = page.locator('[data-cell^="tidal-gate:"]').last();
    // The first picture widens the table after it was scrolled.
    await expect(async () => {
      await table.evaluate((element) => element.scrollTo({ left: 2000, top: 130 }));
      await expect(cell).toBeVisible({ timeout: 500 });
      await expect(picture('Sorting Hall')).toBeVisible({ timeout: 500 });
    }).toPass();
    await expect
      .poll(() => picture('Sorting Hall').evaluate((image: HTMLImageElement) => image.naturalWidth))
      .toBe(1280);
    await expect(picture("Gaffer's Stair")).toBeVisible();
    await expect(async () => {
      await table.evaluate((element) => element.scrollTo({ left: 2000, top: 130 }));
      await cell.dblclick({ timeout: 1000 });
    }).toPass();
    const file = page.getByLabel('File for Picture of Tidal Gate');
    await file.setInputFiles({ name: 'x.png', mimeType: 'image/png', buffer: Buffer.from('no picture') });
    await expect(page.getByRole('alert').filter({ hasText: 'x.png is text. Choose a PNG picture' })).toBeVisible();
    await file.setInputFiles({ name: 'x.png', mimeType: 'image/png', buffer: PNG });
    await expect(picture('Tidal Gate')).toBeVisible();
    await expect(page.getByText('All changes saved')).toBeVisible();
    await page.reload();
    await expect(page.getByRole('grid')).toBeVisible();
    await table.evaluate((element) => element.scrollTo({ left: 2000, top: 130 }));
    await expect(picture('Tidal Gate')).toBeVisible();
    for (let i = 0; i < 2; i++) await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByRole('button', { name: 'Field Picture' })).toHaveCount(0);
    await expect(page.getByText('All changes saved')).toBeVisible();
  });

  test('get codes by a pattern, and those that clash get new ones', async ({ quietPage: page, stravel }) => {
    await introduce(page, stravel.address);
    await page.getByRole('button', { name: 'More', exact: true }).click();
    await page.getByRole('menuitem', { name: 'Codes…' }).click();
    const dialog = page.getByRole('dialog', { name: 'Codes' });
    await dialog.getByLabel('New codes for').selectOption('clashing');
    await expect(dialog.getByRole('row')).toHaveCount(1);
    await dialog.getByLabel('Characters').fill('AAB');
    await expect(dialog.getByRole('alert')).toContainText('A is in the characters twice');
    await dialog.getByLabel('Characters').fill('XYZ01');
    await dialog.getByRole('button', { name: 'Without look-alikes' }).click();
    await expect(dialog.getByLabel('Characters')).toHaveValue('XYZ');
    await dialog.getByLabel('Length').fill('7');
    await expect(dialog).toContainText('2 187 codes can be made.');
    await expect(dialog.getByRole('row').first()).toContainText(/[XYZ]{7}/);
    await checkAxe(page);
    await dialog.getByRole('button', { name: 'Assign 1 code' }).click();
    await page.getByRole('button', { name: 'More', exact: true }).click();
    await page.getByRole('menuitem', { name: 'Codes…' }).click();
    await expect(dialog.getByLabel('Characters')).toHaveValue('XYZ');
    await dialog.getByLabel('New codes for').selectOption('clashing');
    await expect(dialog).toContainText('Every level has a code.');
    await dialog.getByRole('button', { name: 'Cancel' }).click();
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByText('All changes saved')).toBeVisible();
  });
});

test.describe('The whole', () => {
  test('a level says why it is not ready, and the rules, a filter and the sets go by it', async ({
    quietPage: page,
    stravel,
  }) => {
    await introduce(page, stravel.address);
    const ready = (level: string) => page.locator(`[data-cell="${level}:ready"]`);
    await expect(ready('weighbridge')).toHaveText(/error/);
    const works = page.getByRole('row').filter({ hasText: 'Part · 8 levels' }).first();
    const counted = await works.textContent();
    await ready('weighbridge').dblclick();
    const dialog = page.getByRole('dialog', { name: 'Readiness rules' });
    await expect(dialog).toContainText('Weighbridge is not ready:');
    await expect(dialog).toContainText(/1 error/);
    await checkAxe(page);
    await dialog.getByLabel('it has no open findings that are errors').uncheck();
    await dialog.getByRole('button', { name: 'Save rules' }).click();
    await expect(ready('weighbridge')).toHaveText('ready');
    await expect(works).not.toHaveText(counted ?? '');
    await openView(page);
    await page.getByRole('button', { name: 'Add a condition' }).click();
    await page.getByLabel('Column of condition 1').selectOption({ label: 'Ready' });
    await page.getByLabel('Test of condition 1').selectOption('is');
    await page.getByLabel('Value of condition 1').fill('ready');
    await expect(page.locator('[data-cell="cullet-yard:name"]')).toHaveCount(0);
    await expect(page.locator('[data-cell="weighbridge:name"]')).toBeVisible();
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.locator('[data-cell="weighbridge:name"]')).toHaveCount(0);
    await expect(page.getByText('All changes saved')).toBeVisible();
  });

  test('numbers along the order of play and what stands where lead to their level', async ({
    quietPage: page,
    stravel,
  }) => {
    await introduce(page, stravel.address, '/sets/whole');
    await expect(page.getByRole('img', { name: /along the order of play/ })).toBeVisible();
    await expect(page.getByRole('button', { name: 'Cullet Yard' }).first()).toBeVisible();
    await page.getByLabel('Second series').selectOption({ label: 'Pickups' });
    const matrix = page.getByRole('table', { name: 'Contents by level' });
    const yard = matrix.getByRole('row').filter({ hasText: 'Cullet Yard' });
    await expect(matrix.getByRole('columnheader', { name: 'pickup' })).toBeVisible();
    await expect(yard.getByTitle('Cullet Yard: 6 pickup')).toBeVisible();
    await page.getByRole('button', { name: 'by kit' }).click();
    await expect(matrix.getByRole('columnheader', { name: 'crate' })).toHaveCount(0);
    await checkAxe(page);
    await matrix.getByRole('button', { name: 'Low Water' }).click();
    await expect(page).toHaveURL(/layout\/low-water/);
  });

  test('one starts tests where one wants, for oneself alone, and sees that it is so', async ({
    quietPage: page,
    stravel,
  }) => {
    await introduce(page, stravel.address, '/sets', 'Odile');
    await page.getByPlaceholder('Filter by name, code or text').fill('dune');
    await page.getByRole('gridcell', { name: 'Dune Quarry', exact: true }).click();
    await page.getByRole('button', { name: 'More', exact: true }).click();
    await page.getByRole('menuitem', { name: 'Start here…' }).click();
    const dialog = page.getByRole('dialog', { name: 'Start here' });
    await expect(dialog.getByLabel('Level', { exact: true })).toHaveValue('dune-quarry');
    await dialog.getByLabel('Shards').fill('25');
    await dialog.getByText('Abilities').click();
    await dialog.getByLabel('Gather').check();
    await checkAxe(page);
    await dialog.getByRole('button', { name: 'Start here', exact: true }).click();
    await page.reload();
    await page.getByRole('link', { name: 'Tests start at Dune Quarry' }).click();
    await expect(page.getByText('Starts at Dune Quarry, with Gather.')).toBeVisible();
    await expect(page.getByRole('button', { name: 'Play Dune Quarry' })).toBeVisible();
    // 25 shards open the level that waits for 20, too.
    await expect(page.getByRole('button', { name: 'Play Batch Floor' })).toBeVisible();
    await checkAxe(page);
    await page.getByRole('button', { name: 'Use the default start' }).click();
    await expect(page.getByRole('button', { name: 'Play Batch Floor' })).toHaveCount(0);
    await expect(page.getByRole('link', { name: /^Tests start at/ })).toHaveCount(0);
    expect(await page.evaluate(() => Object.keys(localStorage).filter((key) => key.includes('start-here')))).toEqual(
      [],
    );
  });

  test('a band of a core sample names its stratum and leads to it; levels that are not played are one click away', async ({
    quietPage: page,
    stravel,
  }) => {
    await introduce(page, stravel.address);
    await page.getByLabel('Measure').selectOption('triangles');
    const band = page.getByRole('button', { name: /^Dressing, / }).first();
    await band.hover();
    await expect(page.getByText(/Cullet Yard · Dressing, /)).toBeVisible();
    await band.click();
    await expect(page).toHaveURL(/layout\/cullet-yard\?stratum=/);
    await page.getByRole('button', { name: 'Test and tool levels' }).click();
    await page.getByRole('menuitem', { name: /^Lift test/ }).click();
    await expect(page).toHaveURL(/layout\/lift-test/);
  });
});
