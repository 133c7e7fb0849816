import { expect, introduce, test } from '../fixtures/stravel';

test.describe('Nothing is lost', () => {
  test('what is deleted under a waiting change comes back with “Keep mine”', async ({ browser, stravel }) => {
    const first = await (await browser.newContext()).newPage();
    const second = await (await browser.newContext()).newPage();
    await introduce(first, stravel.address, '/devices', 'Odile');
    await introduce(second, stravel.address, '/devices', 'Renke');
    await first.getByRole('button', { name: /^Desk tower/ }).click();
    await second.getByRole('button', { name: /^Desk tower/ }).click();
    const triangles = second.getByLabel('Triangles', { exact: true });
    await second.context().setOffline(true);
    await triangles.fill('7000000');
    await triangles.press('Enter');
    await expect(second.getByText('No server: 1 change kept here')).toBeVisible();
    await first.getByRole('button', { name: 'Delete', exact: true }).click();
    await expect(first.getByRole('button', { name: /^Desk tower/ })).toHaveCount(0);
    await expect(first.getByText('All changes saved')).toBeVisible();
    await second.context().setOffline(false);
    const dialog = second.getByRole('dialog', { name: 'Conflicts with a newer change' });
    await expect(dialog).toContainText('7000000');
    // The deletion has come by the log by the time it is settled, or the server tells that the device is gone.
    await expect(dialog).toContainText('deleted');
    await dialog.getByRole('button', { name: 'Keep mine' }).click();
    await expect(dialog).toHaveCount(0);
    await expect(second.getByRole('button', { name: /^Desk tower.*7\.00 M triangles/ })).toBeVisible();
    await expect(first.getByRole('button', { name: /^Desk tower.*7\.00 M triangles/ })).toBeVisible();
    await second.reload();
    await second.getByRole('button', { name: /^Desk tower/ }).click();
    await expect(second.getByLabel('Triangles', { exact: true })).toHaveValue('7000000');
  });

  test('a refused change is kept, says why, blocks no other, and can be discarded', async ({
    quietPage: page,
    stravel,
    faults,
  }) => {
    await introduce(page, stravel.address, '/devices');
    // A record that the server refuses: two levels of one key, made behind the page's back.
    await page.route('**/api/collections/cinderbrine/edits', async (route) => {
      const body = route.request().postDataJSON() as { label: string } | null;
      if (body?.label === 'Triangles of Handheld') {
        await route.fulfill({
          status: 422,
          contentType: 'application/problem+json',
          body: JSON.stringify({
            title: 'RECORD_INVALID',
            detail: 'device handheld: budget.triangles is refused here',
          }),
        });
      } else await route.continue();
    });
    const triangles = page.getByLabel('Triangles', { exact: true });
    await triangles.fill('390000');
    await triangles.press('Enter');
    const dialog = page.getByRole('dialog', { name: 'A change was not saved' });
    await expect(dialog).toContainText('device handheld: budget.triangles is refused here');
    await expect(dialog.getByRole('button', { name: 'Retry' })).toBeFocused();
    await dialog.getByRole('button', { name: 'Discard' }).click();
    await expect(triangles).toHaveValue('380000');
    const calls = page.getByLabel('Draw calls', { exact: true });
    await calls.fill('310');
    await calls.press('Enter');
    // Only once the change can be taken back has the page it; what it says of saving may be of before.
    await expect(page.getByTitle(/^Undo: Draw calls/)).toBeVisible();
    await expect(page.getByText('All changes saved')).toBeVisible();
    await page.reload();
    await expect(page.getByLabel('Draw calls', { exact: true })).toHaveValue('310');
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByLabel('Draw calls', { exact: true })).toHaveValue('300');
    expect(faults.filter((fault) => !fault.includes('422'))).toEqual([]);
    faults.length = 0;
  });
});
