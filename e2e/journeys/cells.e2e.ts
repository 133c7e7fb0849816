import { checkAxe } from '../fixtures/check-axe';
import { DEMO, expect, introduce, test } from '../fixtures/stravel';
import { PlatePage } from '../pages/plate';

test.describe('Cells', () => {
  test('tells of the cell that comes late, from the seam and from the findings, and it is in time when loaded from farther off', async ({
    quietPage: page,
    stravel,
  }) => {
    await introduce(page, stravel.address, '/cells/low-water');
    await page.getByRole('button', { name: /^Rehearse/ }).click();
    const late = page.getByRole('button', { name: /cell 5,3 late/ });
    await expect(late).toBeVisible({ timeout: 30000 });
    await expect(page.getByText('fresh', { exact: true }).first()).toBeVisible({ timeout: 30000 });
    await expect(page.getByRole('link', { name: /Cells.*1 late/ })).toBeVisible();
    await page.goto(`${stravel.address}${DEMO}/findings`);
    await page.getByRole('button', { name: 'cells', exact: true }).click();
    await page.getByText(/No floor under the walk for 1.08 s/).click();
    await expect(page).toHaveURL(/\/cells\/low-water\?at=/);
    await page.getByText('Change the rules').click();
    await page.getByLabel('load nearer than').fill('60');
    await page.getByLabel('load nearer than').press('Enter');
    await expect(page.getByText('stale', { exact: true }).first()).toBeVisible();
    await page.getByRole('button', { name: /^Rehearse/ }).click();
    await expect(page.getByText('Everything came in time.')).toBeVisible({ timeout: 30000 });
    // Dropping is never nearer than loading.
    await expect(page.getByLabel('unload beyond')).toHaveValue('60');
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByLabel('load nearer than')).toHaveValue('12');
  });

  test('cuts another level, takes a path drawn on it, names what is wrong with a walk, and keeps it over a reload', async ({
    quietPage: page,
    stravel,
  }) => {
    await introduce(page, stravel.address, '/cells/cullet-yard');
    await page.getByRole('button', { name: 'Cut it into cells' }).click();
    await expect(page.locator('footer').getByText(/\d+ cells of 32 m/)).toBeVisible({ timeout: 20000 });
    await page.getByRole('button', { name: 'Draw a path' }).click();
    const plate = new PlatePage(page);
    await plate.click(0.4, 0.5);
    await plate.click(0.4, 0.5);
    await page.keyboard.press('Enter');
    await page.getByRole('button', { name: /^Rehearse/ }).click();
    await expect(page.getByRole('alert')).toContainText(
      'rehearsal: the path has no length, its 2 knots must be at least 2 and apart',
    );
    await page.keyboard.press('p');
    await plate.click(0.4, 0.5);
    await plate.click(0.6, 0.5);
    await page.keyboard.press('Enter');
    await page.getByLabel('speed', { exact: true }).fill('0');
    await page.getByLabel('speed', { exact: true }).press('Enter');
    await expect(page.getByText('From 0.01 to 1000.')).toBeVisible();
    await page.getByLabel('speed', { exact: true }).fill('3');
    await page.getByLabel('speed', { exact: true }).press('Enter');
    await page.getByRole('button', { name: /^Rehearse/ }).click();
    await expect(page.getByText('length, time')).toBeVisible({ timeout: 30000 });
    await expect(page.getByText('fresh', { exact: true }).first()).toBeVisible({ timeout: 30000 });
    await page.reload();
    await expect(page.getByText('length, time')).toBeVisible({ timeout: 20000 });
  });

  test('has no accessibility fault that axe can find', async ({ quietPage: page, stravel }) => {
    await introduce(page, stravel.address, '/cells/low-water');
    await expect(page.locator('footer').getByText('64 cells of 50 m')).toBeVisible({ timeout: 20000 });
    await checkAxe(page);
  });
});
