import { checkAxe } from '../fixtures/check-axe';
import { expect, introduce, test } from '../fixtures/stravel';
import { PlatePage } from '../pages/plate';

test.describe('Sight desk', () => {
  test('bakes in the worker, stands on the plan, draws a divider, compares, and keeps the bake', async ({
    quietPage: page,
    stravel,
  }) => {
    await introduce(page, stravel.address, '/sight/sorting-hall');
    const plate = new PlatePage(page);
    const bake = page.getByRole('button', { name: /^Bake/ });
    await bake.click();
    await expect(page.getByRole('heading', { name: 'Worst pockets' })).toBeVisible({ timeout: 20000 });
    await expect(page.getByText('fresh', { exact: true }).first()).toBeVisible({ timeout: 20000 });
    await expect(page.getByText('Level is closed')).toBeVisible();
    await plate.click(0.17, 0.2);
    const here = page.locator('sv-from-here');
    await expect(here).toContainText('not visible from here');
    await expect(here).toContainText(/pocket \d+/);
    await page.getByRole('button', { name: 'Divider', exact: true }).click();
    await plate.drag(0.1, 0.1, 0.9, 0.9);
    await expect(page.getByRole('heading', { name: 'Dividers' })).toBeVisible();
    await expect(page.getByText('stale', { exact: true }).first()).toBeVisible({ timeout: 20000 });
    await bake.click();
    await expect(page.getByRole('heading', { name: 'Since the bake before' })).toBeVisible({ timeout: 20000 });
    // A kept bake made again is compared too: wait for the comparison that the divider brought.
    const pockets = async (row: number) => Number(await page.locator('.compare dd').nth(row).textContent());
    await expect.poll(async () => (await pockets(5)) - (await pockets(4)), { timeout: 20000 }).toBeGreaterThan(0);
    await expect(page.getByText('fresh', { exact: true }).first()).toBeVisible({ timeout: 20000 });
    await page.reload();
    await expect(page.getByRole('heading', { name: 'Worst pockets' })).toBeVisible();
    await checkAxe(page);
  });

  test('draws the way out of a level that leaks', async ({ quietPage: page, stravel }) => {
    await introduce(page, stravel.address, '/sight/weighbridge');
    await expect(page.getByText('Open to the outside. The arrows show the shortest way out.')).toBeVisible({
      timeout: 20000,
    });
    await expect(page.getByText('way out', { exact: true })).toBeVisible();
    await expect(
      page.getByText(/A block in the gap of 2\.6 × 4 m, between “.+” and “.+” would close the level\./),
    ).toBeVisible();
    await page.getByRole('button', { name: 'Go to the gap' }).click();
  });

  test('can be cancelled', async ({ quietPage: page, stravel }) => {
    await introduce(page, stravel.address, '/sight/cullet-yard');
    await expect(page.getByRole('button', { name: /^Bake/ })).toBeEnabled();
    // From inside the page: a bake may be done before a click from outside arrives.
    const cancelled = await page.evaluate(
      () =>
        new Promise((resolve) => {
          const button = (text: string) =>
            Array.from(document.querySelectorAll('button')).find((one) => one.textContent?.trim().startsWith(text));
          const observer = new MutationObserver(() => {
            const cancel = button('Cancel');
            if (!cancel) return;
            observer.disconnect();
            cancel.click();
            resolve(true);
          });
          observer.observe(document.body, { childList: true, subtree: true });
          button('Bake')?.click();
        }),
    );
    expect(cancelled).toBe(true);
    await expect(page.getByRole('button', { name: /^Bake/ })).toBeVisible();
    await expect(page.getByRole('alert')).toHaveCount(0);
  });
});

test.describe('Budget desk and findings', () => {
  test('holds levels against devices, opens a figure to its parts and goes to its cause', async ({
    quietPage: page,
    stravel,
  }) => {
    await introduce(page, stravel.address, '/budget');
    const over = page.getByRole('button', { name: /^triangles of Cullet Yard:/ });
    await expect(over).toContainText('▲', { timeout: 30000 });
    await over.click();
    const card = page.locator('aside');
    await expect(card).toContainText('bottle heap');
    await page.getByRole('button', { name: /^load time of Sorting Hall:/ }).click();
    await expect(card).toContainText('seek, 5 files');
    await page.getByRole('button', { name: 'Device that figures are compared with' }).click();
    await page.getByRole('menuitem', { name: 'Desk tower' }).click();
    await expect(over).not.toContainText('▲');
    await checkAxe(page);
    await page.getByRole('button', { name: /^triangles of Cullet Yard:/ }).click();
    await page.getByRole('button', { name: 'Take me there' }).click();
    await expect(page).toHaveURL(/sight\/cullet-yard/);
  });

  test('compares three devices, filters by state, and shows a cause on the plan', async ({
    quietPage: page,
    stravel,
  }) => {
    await introduce(page, stravel.address, '/budget');
    const row = (name: string) => page.getByRole('row').filter({ hasText: name });
    await expect(row('Cullet Yard')).toContainText('▲', { timeout: 30000 });
    const another = page.getByRole('button', { name: 'Compare another device' });
    await another.click();
    await page.getByRole('menuitem', { name: 'Living-room box' }).click();
    await expect(page.getByRole('button', { name: /^triangles of Cullet Yard on Handheld:/ })).toContainText('▲');
    await expect(page.getByRole('button', { name: /^triangles of Cullet Yard on Living-room box:/ })).not.toContainText(
      '▲',
    );
    await another.click();
    await page.getByRole('menuitem', { name: 'Desk tower' }).click();
    // Three keep their name and the worst share; one of them is open at a time.
    await expect(page.getByRole('columnheader', { name: 'triangles on Handheld' })).toBeVisible();
    await page.locator('sv-budget-table').getByRole('button', { name: 'Desk tower', exact: true }).click();
    await expect(page.getByRole('columnheader', { name: 'triangles on Desk tower' })).toBeVisible();
    await expect(page.getByRole('columnheader', { name: 'triangles on Handheld' })).toHaveCount(0);
    await checkAxe(page);
    await page.getByRole('button', { name: 'Do not compare Desk tower' }).click();
    await page.getByRole('button', { name: 'Do not compare Living-room box' }).click();
    await page.getByRole('button', { name: /^Over \d/ }).click();
    await expect(row('Sorting Hall')).toHaveCount(0);
    await page.getByRole('searchbox', { name: 'Filter levels' }).fill('no level is called that');
    await page.getByRole('button', { name: 'Show all levels' }).click();
    await expect(row('Sorting Hall')).toBeVisible();
    await page.getByRole('button', { name: /bottle heap/ }).click();
    await expect(page).toHaveURL(/layout\/cullet-yard/);
    await expect(page.getByText('458 objects selected.')).toBeVisible({ timeout: 20000 });
  });

  test('bakes what is stale as a job and comes back to fresh', async ({ quietPage: page, stravel }) => {
    await introduce(page, stravel.address, '/layout/kiln-tunnels');
    await page.getByRole('option', { name: 'turn 1' }).click();
    await page.keyboard.press('ArrowUp');
    await expect(page.getByText('All changes saved')).toBeVisible();
    await page.getByRole('link', { name: /^Budget/ }).click();
    await page.getByRole('button', { name: /Bake stale levels/ }).click();
    await expect(page.getByRole('button', { name: 'All bakes fresh' })).toBeVisible({ timeout: 60000 });
  });

  test('fixes a finding, accepts another until a date, and keeps both', async ({ quietPage: page, stravel }) => {
    await introduce(page, stravel.address, '/findings');
    await expect(page.getByText(/Weighbridge: Open to the outside/)).toBeVisible({ timeout: 30000 });
    // The list shows only what is in view; findings of other tests may push it out.
    await page.getByRole('button', { name: 'sets', exact: true }).click();
    await page.getByRole('button', { name: 'Give it a new code' }).click();
    await expect(page.getByText(/has the code/)).toHaveCount(0);
    await page.getByRole('button', { name: 'all', exact: true }).click();
    // Levels that other tests made have findings too; the list shows only what is in view.
    await page.locator('.tools select').nth(1).selectOption({ label: 'Salt Road' });
    await page.getByLabel(/Select: Salt Road: 1 opening/).check();
    await page.getByRole('button', { name: 'Accept…' }).click();
    await page.getByLabel('Reason').fill('Exact enough here');
    await page.getByLabel('Ask again after').fill('2099-01-01');
    await page.getByRole('dialog').getByRole('button', { name: 'Accept' }).click();
    await expect(page.getByText(/Salt Road: 1 opening/)).toHaveCount(0);
    await page.getByLabel('Show accepted').check();
    await expect(page.getByText('Accepted until 2099-01-01.')).toBeVisible();
    await checkAxe(page);
    await page.reload();
    await expect(page.getByText(/Weighbridge: Open to the outside/)).toBeVisible();
    await expect(page.getByText(/Salt Road: 1 opening/)).toHaveCount(0);
  });
});
