import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Locator, Page } from '@playwright/test';
import { checkAxe } from '../fixtures/check-axe';
import { expect, test } from '../fixtures/stravel';
import { PlatePage } from '../pages/plate';

const LONG = 'Harbour of the very long names, where each has sixty letters';

/** Makes a collection from the start page and stands on its Sets desk. */
async function newCollection(page: Page, address: string, name: string): Promise<string> {
  await page.goto(address);
  await page.getByRole('button', { name: 'New collection…' }).click();
  await page.getByLabel('Name', { exact: true }).fill(name);
  await page.getByRole('button', { name: 'Create collection' }).click();
  await expect(page).toHaveURL(/\/c\/[0-9a-f-]{36}\/sets$/);
  await expect(page.getByRole('gridcell', { name: 'New level', exact: true })).toBeVisible();
  return page.url().replace(/\/sets$/, '');
}

test.describe('Begin', () => {
  test('a stranger makes a collection, names its level, and is asked for a name only then', async ({
    quietPage: page,
    stravel,
  }) => {
    const home = await newCollection(page, stravel.address, LONG);
    // What holds nothing is not called ready.
    await page.getByRole('link', { name: 'Pack', exact: true }).click();
    await expect(page.getByText('Nothing to pack: no level that is included has content.')).toBeVisible();
    await page.goto(`${home}/sets`);
    await expect(page.getByText('Your first level is here.')).toBeVisible();
    await checkAxe(page);
    await page.getByRole('gridcell', { name: 'New level', exact: true }).dblclick();
    await page.getByLabel('Level of New level').fill('Quay');
    await page.keyboard.press('Enter');
    // The change waits for the name, and is not lost by it.
    await page.getByRole('dialog').getByLabel('Name', { exact: true }).fill('Ines');
    await page.getByRole('button', { name: 'Continue' }).click();
    await expect(page.getByRole('gridcell', { name: 'Quay', exact: true })).toBeVisible();
    // The first name makes the key; a later one leaves it.
    await expect(page.getByRole('gridcell', { name: 'quay', exact: true })).toBeVisible();
    await page.getByRole('gridcell', { name: 'Quay', exact: true }).dblclick();
    await page.getByLabel('Level of Quay').fill('Old quay');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('gridcell', { name: 'Old quay', exact: true })).toBeVisible();
    await expect(page.getByText('All changes saved')).toBeVisible();
    await page.reload();
    await expect(page.getByRole('gridcell', { name: 'quay', exact: true })).toBeVisible();
    await page.getByRole('button', { name: 'Open in Layout' }).click();
    await expect(page).toHaveURL(/\/layout\/quay/);
    // A level in which nothing stands says what to do, until something does.
    const hint = page.getByText('This level is empty');
    await expect(hint).toContainText('a stratum, which is made with it');
    await checkAxe(page);
    await page.getByRole('button', { name: 'block', exact: true }).click();
    await expect(hint).toBeVisible();
    await new PlatePage(page).drag(0.3, 0.3, 0.5, 0.5);
    await expect(page.getByRole('heading', { name: 'Block “box”' })).toBeVisible();
    await expect(hint).toBeHidden();
    // The stratum goes with what it was made for.
    await expect(page.getByRole('button', { name: /^Structure/ })).toBeVisible();
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByRole('button', { name: /^Structure/ })).toHaveCount(0);
    await expect(hint).toBeVisible();
  });

  test('collections are copied, renamed, binned and restored; what is copied is apart', async ({
    quietPage: page,
    stravel,
  }) => {
    const home = await newCollection(page, stravel.address, 'Salt');
    await page.getByRole('link', { name: 'Stravel: all collections' }).click();
    // Each collection shows its levels; of a new one nothing is known.
    const collection = (name: string): Locator => page.getByRole('listitem').filter({ hasText: name });
    await expect(collection('Salt').getByText('1 level · 1 not known')).toBeVisible();
    await expect(collection('Cinderbrine').getByRole('heading', { name: 'The Works' })).toBeVisible();
    await checkAxe(page);
    const more = page.getByRole('button', { name: 'More for Salt', exact: true });
    await more.click();
    await page.getByRole('menuitem', { name: 'Duplicate…' }).click();
    await page.getByRole('textbox', { name: 'Name' }).fill('Salt again');
    await page.getByRole('button', { name: 'Duplicate' }).click();
    await page.getByRole('link', { name: 'Open Salt again' }).click();
    await expect(page.getByRole('gridcell', { name: 'New level', exact: true })).toBeVisible();
    expect(page.url().replace(/\/sets$/, '')).not.toBe(home);
    await page.goto(stravel.address);
    await checkAxe(page);
    await page.getByRole('button', { name: 'More for Salt again' }).click();
    await page.getByRole('menuitem', { name: 'Delete' }).click();
    await expect(page.getByRole('heading', { name: 'Bin' })).toBeVisible();
    await page.getByRole('button', { name: 'Restore Salt again' }).click();
    await expect(page.getByRole('link', { name: 'Open Salt again' })).toBeVisible();
    await page.getByRole('button', { name: 'More for Salt again' }).click();
    await page.getByRole('menuitem', { name: 'Delete' }).click();
    await page.getByRole('button', { name: 'Delete Salt again for good' }).click();
    await page.getByRole('textbox', { name: 'Name' }).fill('Salt');
    await page.getByRole('button', { name: 'Delete for good', exact: true }).click();
    await expect(page.getByText('Type Salt again to delete it.')).toBeVisible();
    await page.getByRole('textbox', { name: 'Name' }).fill('Salt again');
    await page.getByRole('button', { name: 'Delete for good', exact: true }).click();
    await expect(page.getByRole('heading', { name: 'Bin' })).toHaveCount(0);
  });

  test('devices are added, edited and deleted with what uses them; without one there is no budget', async ({
    quietPage: page,
    stravel,
  }) => {
    await page.goto(stravel.address);
    await page.getByRole('button', { name: 'New collection…' }).click();
    await page.getByLabel('Name', { exact: true }).fill('No devices');
    for (const name of ['Handheld', 'Living-room box', 'Desk tower'])
      await page.getByRole('checkbox', { name: new RegExp(name) }).uncheck();
    await page.getByRole('button', { name: 'Create collection' }).click();
    // Without a shelf the table has the page's whole width.
    await expect.poll(async () => (await page.getByRole('grid').boundingBox())?.width ?? 0).toBeGreaterThan(1100);
    await page.getByRole('link', { name: 'No device, no budget' }).click();
    await page.getByRole('button', { name: 'Add Handheld' }).click();
    await page.getByRole('dialog').getByLabel('Name', { exact: true }).fill('Ines');
    await page.getByRole('button', { name: 'Continue' }).click();
    const triangles = page.getByLabel('Triangles', { exact: true });
    await expect(triangles).toHaveValue('380000');
    await checkAxe(page);
    await triangles.fill('a lot');
    await triangles.press('Enter');
    await expect(page.getByText('“a lot” is not a number.')).toBeVisible();
    await expect(triangles).toHaveValue('a lot');
    await triangles.fill('250000');
    await triangles.press('Enter');
    await expect(page.getByRole('button', { name: /Handheld.*250 k triangles/ })).toBeVisible();
    await page.getByRole('button', { name: 'Copy', exact: true }).click();
    await expect(page.getByLabel('Name of the device')).toHaveValue('Handheld copy');
    await page.getByRole('button', { name: 'Delete', exact: true }).click();
    await expect(page.getByRole('button', { name: /Handheld copy/ })).toHaveCount(0);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByRole('button', { name: /Handheld copy/ })).toBeVisible();
  });

  test('the first level brings a set, and a CSV column brings the sets it names', async ({
    quietPage: page,
    stravel,
  }) => {
    const home = await newCollection(page, stravel.address, 'Lists');
    await page.goto(`${home}/sets`);
    const file = join(mkdtempSync(join(tmpdir(), 'stravel-csv-')), 'levels.csv');
    writeFileSync(file, 'name,set\nSlip,Harbour / Inner\nMole,Harbour / Inner\nBuoy,Sea\n');
    await page.getByRole('button', { name: 'Import CSV…' }).click();
    await page.getByLabel('CSV file', { exact: true }).setInputFiles(file);
    await expect(page.getByText('unless the Set column names another')).toBeVisible();
    await page.getByRole('button', { name: 'Import 3 rows' }).click();
    await page.getByRole('dialog').getByLabel('Name', { exact: true }).fill('Ines');
    await page.getByRole('button', { name: 'Continue' }).click();
    for (const name of ['Harbour', 'Inner', 'Sea', 'Slip', 'Mole', 'Buoy'])
      await expect(
        page
          .getByRole('gridcell', { name, exact: true })
          .or(page.getByText(name, { exact: true }))
          .first(),
      ).toBeVisible();
    await expect(page.getByText('All changes saved')).toBeVisible();
  });

  test('a level is chosen by the switcher, keeps its view per desk, and its address leads back to it', async ({
    quietPage: page,
    stravel,
  }) => {
    await page.goto(`${stravel.address}/c/cinderbrine/layout/sorting-hall`);
    await expect(page.getByRole('application')).toBeVisible();
    await page.getByRole('button', { name: /Level: Sorting Hall/ }).click();
    await expect(page.getByRole('combobox', { name: /Level by name/ })).toBeFocused();
    await page.keyboard.type('mould');
    await page.keyboard.press('Enter');
    await expect(page).toHaveURL(/layout\/mould-room/);
    await page.getByRole('button', { name: 'Previous level: Gaffer' }).click();
    await expect(page).toHaveURL(/layout\/gaffers-stair/);
    await page.goto(`${stravel.address}/c/cinderbrine/sight/gaffers-stair?heights=3,4`);
    await expect(page).toHaveURL(/sight\/gaffers-stair/);
    await expect(page.getByText('3 to 7 m')).toBeVisible();
    await page.getByRole('link', { name: 'Layout' }).click();
    await page.getByRole('link', { name: 'Sight' }).click();
    await expect(page.getByText('3 to 7 m')).toBeVisible();
    // So does the list of its things: where it was scrolled to, also after a reload.
    await page.getByRole('link', { name: 'Layout' }).click();
    const list = page.locator('sv-item-list cdk-virtual-scroll-viewport');
    // Low enough that there is something to scroll.
    await page.setViewportSize({ width: 1280, height: 560 });
    await expect(list.getByRole('option').first()).toBeVisible();
    // While its strata are still coming the list may be too short to be scrolled so far.
    await expect
      .poll(() =>
        list.evaluate((element) => {
          element.scrollTop = 96;
          return localStorage.getItem('stravel.scrolls.cinderbrine');
        }),
      )
      .toContain('96');
    await page.getByRole('button', { name: /^Next level/ }).click();
    await expect(page).not.toHaveURL(/gaffers-stair/);
    await page.reload();
    await page.getByRole('button', { name: 'Previous level: Gaffer' }).click();
    await expect.poll(() => list.evaluate((element) => element.scrollTop)).toBe(96);
    await page.goto(`${stravel.address}/c/cinderbrine/layout/mold-room`);
    await expect(page.getByRole('alert')).toContainText('No level has the key “mold-room”');
    await page.getByRole('link', { name: 'Mould Room' }).click();
    await expect(page).toHaveURL(/layout\/mould-room/);
    await page.goto(`${stravel.address}/c/nowhere/sets`);
    await expect(page.getByRole('alert')).toContainText('There is no such collection');
  });
});
