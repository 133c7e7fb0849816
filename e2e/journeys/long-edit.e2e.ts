import { expect, introduce, test } from '../fixtures/stravel';

test.describe('A change of very many things', () => {
  test('goes out as lines, comes to others by its number, and is undone', async ({ browser, stravel }) => {
    // Two plates with everything selected share the machine's cores.
    test.setTimeout(300000);
    const first = await (await browser.newContext()).newPage();
    const second = await (await browser.newContext()).newPage();
    await introduce(first, stravel.address, '/layout/cullet-yard', 'Odile');
    await introduce(second, stravel.address, '/layout/cullet-yard', 'Renke');
    const wall = (page: typeof first, x: string) =>
      page.locator('sv-item-list').getByRole('option', { name: new RegExp(`^north wall ${x}, `) });
    await expect(wall(first, '0.0')).toBeVisible();
    await expect(wall(second, '0.0')).toBeVisible();
    const plan = await first.getByRole('application').boundingBox();
    if (!plan) throw new Error('the plan is not shown');
    await first.mouse.move(plan.x + 4, plan.y + 4);
    await first.mouse.down();
    await first.mouse.move(plan.x + plan.width / 2, plan.y + plan.height / 2);
    await first.mouse.move(plan.x + plan.width - 4, plan.y + plan.height - 4);
    await first.mouse.up();
    await expect(first.getByText(/^14\d\d selected of 1461/)).toBeVisible();
    const sent = first.waitForRequest((request) => request.method() === 'POST' && request.url().endsWith('/edits'), {
      timeout: 120000,
    });
    const fetched = second.waitForRequest(/\/edits\/[0-9a-f-]{36}$/, { timeout: 120000 });
    await first.keyboard.press('ArrowRight');
    await first.getByRole('dialog').getByRole('button', { name: 'All 8 levels' }).click();
    expect((await sent).headers()['content-type']).toBe('application/x-ndjson');
    await fetched;
    await expect(wall(first, '0.5')).toBeVisible();
    await expect(wall(second, '0.5')).toBeVisible();
    await expect(first.getByText('All changes saved')).toBeVisible();
    // It is in the log, not in the page alone.
    await second.reload();
    await expect(wall(second, '0.5')).toBeVisible();
    await first.getByRole('button', { name: 'Undo' }).click();
    await expect(wall(first, '0.0')).toBeVisible();
    await expect(wall(second, '0.0')).toBeVisible();
    await expect(first.getByText('All changes saved')).toBeVisible();
  });
});
