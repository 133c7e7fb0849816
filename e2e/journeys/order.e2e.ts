import { checkAxe } from '../fixtures/check-axe';
import { expect, introduce, test } from '../fixtures/stravel';

test.describe('Order of play', () => {
  test('leads from a finding to the level that can never unlock, and a lower threshold mends it', async ({
    quietPage: page,
    stravel,
  }) => {
    await introduce(page, stravel.address, '/findings');
    await page.getByRole('button', { name: /Wreck Reach can never unlock/ }).click();
    await expect(page).toHaveURL(/sets\/order\?level=wreck-reach/);
    await expect(page.getByRole('button', { name: /Wreck Reach.*can never unlock/ })).toBeVisible();
    await expect(page.getByText('23 of 24 play levels can be unlocked')).toBeVisible();
    await checkAxe(page);
    const threshold = page.getByLabel('Threshold');
    await threshold.fill('200');
    await threshold.press('Enter');
    await expect(page.getByText('24 of 24 play levels can be unlocked')).toBeVisible();
    await expect(page.getByText('All changes saved')).toBeVisible();
    await page.reload();
    await expect(page.getByText('24 of 24 play levels can be unlocked')).toBeVisible();
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByText('23 of 24 play levels can be unlocked')).toBeVisible();
    await page.getByRole('button', { name: /^findings/ }).click();
    await expect(page.getByText(/at most \d+ can be collected by then/)).toBeVisible();
    await expect(page.getByText('All changes saved')).toBeVisible();
  });

  test('connects two levels by a drag', async ({ quietPage: page, stravel }) => {
    await introduce(page, stravel.address, '/sets/order');
    const from = page.locator('.level').filter({ hasText: 'Mould Room' }).locator('.handle');
    const to = page.locator('.level').filter({ hasText: 'Kiln Tunnels' });
    const start = await from.boundingBox();
    const end = await to.boundingBox();
    const place = (await to.getAttribute('transform')) ?? '';
    if (!start || !end) throw new Error('the levels are not drawn');
    await page.mouse.move(start.x + start.width / 2, start.y + start.height / 2);
    await page.mouse.down();
    await page.mouse.move(end.x + 40, end.y + 15, { steps: 5 });
    await page.mouse.up();
    await expect(page.locator('sv-order-card')).toContainText('Mould Room');
    await expect(page.locator('sv-order-card').getByRole('heading', { name: 'Kiln Tunnels' })).toBeVisible();
    // What was drawn keeps its place while one edits; it is arranged anew when asked to.
    await expect(page.locator('.edge.touches')).not.toHaveCount(0);
    await expect(to).toHaveAttribute('transform', place);
    await page.getByRole('button', { name: 'Arrange' }).click();
    await expect(to).not.toHaveAttribute('transform', place);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.locator('sv-order-card .source').filter({ hasText: 'Mould Room' })).toHaveCount(0);
    await expect(page.getByText('All changes saved')).toBeVisible();
  });

  test('shows the graph smaller and larger, and points out the levels of a set', async ({
    quietPage: page,
    stravel,
  }) => {
    await introduce(page, stravel.address, '/sets/order');
    const graph = page.locator('sv-order-graph svg');
    const full = await graph.boundingBox();
    await page.getByRole('button', { name: 'Smaller' }).click();
    await expect(page.getByRole('button', { name: '80 %' })).toBeVisible();
    await expect.poll(async () => ((await graph.boundingBox())?.width ?? 0) / (full?.width ?? 1)).toBeCloseTo(0.8, 2);
    await page.getByRole('button', { name: '80 %' }).click();
    await expect(page.getByRole('button', { name: '100 %' })).toBeVisible();
    await page.getByRole('button', { name: /^The Works/ }).click();
    await expect(page.locator('.level.lit')).toHaveCount(8);
    await checkAxe(page);
    await page.getByRole('button', { name: /^The Works/ }).click();
    await expect(page.locator('.level.lit')).toHaveCount(0);
  });

  test('plays levels in an order of one’s own and says what opens', async ({ quietPage: page, stravel }) => {
    await introduce(page, stravel.address, '/sets/order');
    await page.getByRole('button', { name: 'play through' }).click();
    await page.getByRole('button', { name: 'Play Cullet Yard' }).click();
    await expect(page.getByText('unlocks Sorting Hall')).toBeVisible();
    await page.getByLabel('Shards collected in Sorting Hall').fill('8');
    await page.getByRole('button', { name: 'Play Sorting Hall' }).click();
    await expect(page.getByText('unlocks Furnace One')).toBeVisible();
    await page.getByRole('button', { name: 'Type the code of Potash Grotto' }).click();
    await expect(page.getByRole('button', { name: 'Play Potash Grotto' })).toBeVisible();
    await checkAxe(page);
    await page.getByRole('button', { name: 'Restart' }).click();
    await expect(page.getByText('Nothing was played yet.')).toBeVisible();
  });
});
