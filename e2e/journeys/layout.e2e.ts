import AxeBuilder from '@axe-core/playwright';
import { expect, introduce, test } from '../fixtures/stravel';
import { PlatePage } from '../pages/plate';
import { newStratum, takePiece } from '../pages/strata';

test.describe('Layout desk', () => {
  test('draws, moves, resizes, duplicates and deletes a block, undone and redone, kept over a reload and a killed server', async ({
    quietPage: page,
    stravel,
    faults,
  }) => {
    await introduce(page, stravel.address, '/layout/swim-test');
    const plate = new PlatePage(page);
    await newStratum(page);
    await page.getByRole('button', { name: 'block', exact: true }).click();
    await plate.drag(0.3, 0.3, 0.5, 0.5);
    await expect(page.getByRole('heading', { name: 'Block “box”' })).toBeVisible();
    await expect(page.getByText('All changes saved')).toBeVisible();

    const place = page.getByLabel('Position X', { exact: true });
    await place.fill('12.5');
    await place.press('Enter');
    await page.getByLabel('Size Z', { exact: true }).fill('4');
    await page.getByLabel('Size Z', { exact: true }).press('Enter');
    await page.getByLabel('Rotation yaw', { exact: true }).fill('30');
    await page.getByLabel('Rotation yaw', { exact: true }).press('Enter');
    await expect(place).toHaveValue('12.5');

    await page.getByLabel('Size X', { exact: true }).fill('wide');
    await page.getByLabel('Size X', { exact: true }).press('Enter');
    await expect(page.getByRole('alert').filter({ hasText: '“wide” is not a number.' })).toBeVisible();
    await page.getByLabel('Size X', { exact: true }).press('Escape');

    await page.getByRole('button', { name: 'Duplicate' }).click();
    await expect(page.getByText('1 selected of 2')).toBeVisible();
    await page.getByRole('button', { name: 'Delete' }).click();
    await expect(page.getByText('0 selected of 1')).toBeVisible();
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByText('of 2')).toBeVisible();
    await page.getByRole('button', { name: 'Redo' }).click();
    await expect(page.getByText('of 1')).toBeVisible();
    await expect(page.getByText('All changes saved')).toBeVisible();

    await stravel.kill();
    await page.locator('sv-item-list').getByRole('option', { name: 'box' }).click();
    await page.keyboard.press('ArrowRight');
    await expect(page.getByText(/No server: 1 change kept here/)).toBeVisible();
    await stravel.start();
    await expect(page.getByText('All changes saved')).toBeVisible({ timeout: 20000 });
    // Only the broken connection may have been complained of.
    expect(
      faults.filter((fault) => !/ERR_CONNECTION_REFUSED|ERR_INCOMPLETE_CHUNKED|Failed to load resource/.test(fault)),
    ).toEqual([]);
    faults.length = 0;
    await page.reload();
    await page.locator('sv-item-list').getByRole('option', { name: 'box' }).click();
    await expect(page.getByLabel('Position X', { exact: true })).toHaveValue('13');
    await expect(page.getByLabel('Rotation yaw', { exact: true })).toHaveValue('30');
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByLabel('Position X', { exact: true })).toHaveValue('12.5');
  });

  test('asks once before shared content changes and says how far it reaches', async ({ quietPage: page, stravel }) => {
    await introduce(page, stravel.address, '/layout/sorting-hall');
    await page.getByRole('button', { name: /^Works base/ }).click();
    await page.getByRole('option', { name: 'ground' }).click();
    await expect(page.getByText(/Changes affect 8 levels/)).toBeVisible();
    await page.keyboard.press('ArrowRight');
    const dialog = page.getByRole('dialog', { name: 'Which levels should change?' });
    await expect(dialog).toContainText('Cullet Yard');
    await dialog.getByRole('button', { name: 'Cancel' }).click();
    await expect(dialog).toHaveCount(0);
    await expect(page.getByLabel('Position X', { exact: true })).toHaveValue('0');
    await page.keyboard.press('ArrowRight');
    await page.getByRole('button', { name: 'All 8 levels' }).click();
    await expect(page.getByLabel('Position X', { exact: true })).toHaveValue('0.5');
    await page.keyboard.press('ArrowLeft');
    await expect(page.getByLabel('Position X', { exact: true })).toHaveValue('0');
    await expect(page.getByRole('dialog')).toHaveCount(0);
  });

  test('places a piece, hides and locks strata, selects by box, has no accessibility fault', async ({
    quietPage: page,
    stravel,
  }) => {
    await introduce(page, stravel.address, '/layout/gaffers-stair');
    const plate = new PlatePage(page);
    await expect(page.getByText('90', { exact: false }).first()).toBeVisible();
    await takePiece(page, /furnace/);
    await plate.click(0.6, 0.8);
    await expect(page.getByRole('heading', { name: 'furnace' })).toBeVisible();
    await page.keyboard.press('s');
    await plate.drag(0.05, 0.05, 0.95, 0.95);
    await expect(page.getByText(/[1-9]\d+ selected of 91/)).toBeVisible();
    await page.getByRole('button', { name: 'Lock Dressing' }).click();
    await page.keyboard.press('Escape');
    await plate.drag(0.05, 0.05, 0.95, 0.95);
    const few = await page.getByText(/\d+ selected of 91/).textContent();
    expect(Number(/(\d+) selected/.exec(few ?? '')?.[1])).toBeLessThan(40);
    await page.getByRole('button', { name: 'Hide Dressing' }).click();
    await expect(page.getByRole('button', { name: 'Show Dressing' })).toBeVisible();
    for (const theme of ['light', 'dark']) {
      await page.evaluate((name) => (document.documentElement.dataset['theme'] = name), theme);
      const { violations } = await new AxeBuilder({ page })
        .withTags(['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'])
        .analyze();
      expect(violations.map(({ id, nodes }) => `${id}: ${nodes[0].html}`)).toEqual([]);
    }
  });
});
