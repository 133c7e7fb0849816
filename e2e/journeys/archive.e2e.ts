import { readFileSync } from 'node:fs';
import { archiveCollection, restoreCollection } from '@stravel/core';
import { installLinearPatterns } from '@stravel/core/linear-patterns';
import { checkAxe } from '../fixtures/check-axe';
import { expect, introduce, test } from '../fixtures/stravel';

// An archive is read here as the server reads it.
installLinearPatterns();

/** The archive with a marker in a group that is missing. */
function withLooseMarker(bytes: Uint8Array): Buffer {
  const content = restoreCollection(new Uint8Array(bytes));
  for (const [id, stratum] of content.strata) {
    if (stratum.marker.length === 0 || content.records.stratum[id].owner === null) continue;
    const [first, ...others] = stratum.marker;
    content.strata.set(id, { ...stratum, marker: [{ ...first, group: 'nowhere' }, ...others] });
    break;
  }
  return Buffer.from(archiveCollection(content));
}

test.describe('Archive', () => {
  test('goes out and in again through the page, and a file that is none is refused by name', async ({
    quietPage: page,
    stravel,
    faults,
  }) => {
    await introduce(page, stravel.address);
    const menu = page.getByRole('button', { name: /^Cinderbrine/ });
    await menu.click();
    const download = page.waitForEvent('download');
    await page.getByRole('menuitem', { name: 'Archive to a zip' }).click();
    const path = await (await download).path();
    expect(readFileSync(path).subarray(0, 2).toString()).toBe('PK');

    const picker = page.getByLabel('Archive to restore', { exact: true });
    await picker.setInputFiles({
      name: 'holiday.zip',
      mimeType: 'application/zip',
      buffer: Buffer.from('no zip at all'),
    });
    await expect(
      page.getByText(/holiday.zip was not restored\. holiday.zip is text\. Choose a zip archive/),
    ).toBeVisible();
    expect(faults.filter((fault) => !fault.includes('422'))).toEqual([]);
    faults.length = 0;
    await page.getByRole('button', { name: 'Close' }).click();
    await expect(page.getByRole('gridcell', { name: 'Sorting Hall', exact: true })).toBeVisible();

    await picker.setInputFiles(path);
    await expect(page.getByText('Cinderbrine was restored as a new collection.')).toBeVisible({ timeout: 30000 });
    await expect(page.getByRole('link', { name: 'Open Cinderbrine' })).toHaveCount(2);
    await page.getByRole('link', { name: 'Open Cinderbrine' }).first().click();
    await expect(page.getByRole('gridcell', { name: 'Sorting Hall', exact: true })).toBeVisible();
    expect(page.url()).not.toContain('/c/cinderbrine/');
  });

  test('is restored into the open collection after a look at what would change, and undone at once', async ({
    quietPage: page,
    stravel,
  }) => {
    await introduce(page, stravel.address);
    await page.getByRole('button', { name: /^Cinderbrine/ }).click();
    const download = page.waitForEvent('download');
    await page.getByRole('menuitem', { name: 'Archive to a zip' }).click();
    const path = await (await download).path();
    await page.getByRole('gridcell', { name: 'Mould Room', exact: true }).dblclick();
    await page.getByLabel('Level of Mould Room').fill('Mould Loft');
    await page.keyboard.press('Enter');
    await expect(page.getByText('All changes saved')).toBeVisible();
    const picker = page.getByLabel('Archive for this collection');
    await picker.setInputFiles({ name: 'before.zip', mimeType: 'application/zip', buffer: readFileSync(path) });
    const dialog = page.getByRole('dialog', { name: 'Restore before.zip into Cinderbrine?' });
    await expect(dialog).toContainText('Levels: 1 changed. All of it becomes one edit that you can undo.');
    await checkAxe(page);
    await dialog.getByRole('button', { name: 'Restore' }).click();
    await expect(page.getByRole('gridcell', { name: 'Mould Room', exact: true })).toBeVisible();
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByRole('gridcell', { name: 'Mould Loft', exact: true })).toBeVisible();
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByText('All changes saved')).toBeVisible();
    await picker.setInputFiles({ name: 'before.zip', mimeType: 'application/zip', buffer: readFileSync(path) });
    await expect(page.getByText('Cinderbrine already has all of it: nothing would change.')).toBeVisible();
    // What leads nowhere in an archive is told before it is taken.
    await picker.setInputFiles({
      name: 'loose.zip',
      mimeType: 'application/zip',
      buffer: withLooseMarker(readFileSync(path)),
    });
    const loose = page.getByRole('dialog', { name: 'Restore loose.zip into Cinderbrine?' });
    await expect(loose).toContainText('Markers: 1 changed.');
    await expect(loose.getByRole('listitem')).toHaveText(
      /^levels\/.*\.json: group of the marker \S+ points at nowhere, which does not exist$/,
    );
    await checkAxe(page);
    await loose.getByRole('button', { name: 'Cancel' }).click();
  });

  test('leads from a finding to its place', async ({ quietPage: page, stravel }) => {
    await introduce(page, stravel.address, '/findings');
    await page.getByRole('button', { name: /Weighbridge: Open to the outside/ }).click({ timeout: 60000 });
    await expect(page).toHaveURL(/sight\/weighbridge\?at=/);
    await expect(page.locator('sv-from-here')).toContainText(/pocket \d+/);
  });
});
