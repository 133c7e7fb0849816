import AxeBuilder from '@axe-core/playwright';
import type { Locator, Page } from '@playwright/test';
import { deleteStratum, newStratum, takePiece } from '../pages/strata';
import { DEMO, expect, introduce, test } from '../fixtures/stravel';
import { PlatePage } from '../pages/plate';

const saved = (page: Page) => expect(page.getByText('All changes saved')).toBeVisible();
const item = (page: Page, name: string | RegExp) => page.locator('sv-item-list').getByRole('option', { name });
const within = (page: Page, name: string) => page.locator('sv-assembly-card li').filter({ hasText: name });

async function command(page: Page, name: RegExp): Promise<void> {
  await page.getByRole('button', { name: 'More' }).click();
  await page.getByRole('menuitem', { name }).click();
}

test.describe('Assemblies', () => {
  test('are made from a selection, placed again, changed in one place, for all, and parted with', async ({
    quietPage: page,
    stravel,
  }) => {
    await stravel.empty('glass-heart');
    await introduce(page, stravel.address, '/layout/glass-heart');
    await newStratum(page);
    const plate = new PlatePage(page);
    await page.keyboard.press('b');
    await plate.drag(0.3, 0.4, 0.4, 0.5);
    await expect(item(page, /^box/)).toHaveCount(1);
    await page.keyboard.press('m');
    await plate.click(0.45, 0.45);
    await expect(item(page, /^spawn/)).toHaveCount(1);
    await page.keyboard.press('s');
    await plate.drag(0.2, 0.3, 0.55, 0.6);
    await command(page, /^Make an assembly/);
    await expect(page.locator('[role=dialog] :focus')).toHaveCount(1);
    await page.getByRole('dialog').getByLabel('Name').fill('Door bay');
    await page.getByRole('dialog').getByRole('button', { name: 'Create assembly' }).click();
    await expect(page.locator('sv-strata-stack')).toContainText('1 assembly');
    await expect(item(page, /^Door bay/)).toHaveCount(1);
    await expect(within(page, 'spawn')).toBeVisible();
    const axe = await new AxeBuilder({ page }).include('sv-assembly-card').analyze();
    expect(axe.violations).toEqual([]);

    const placeOf = async (row: Locator): Promise<string> =>
      (/-?[\d.]+, -?[\d.]+, -?[\d.]+/.exec(await row.innerText()) ?? ['nowhere'])[0];
    const first = await placeOf(item(page, /^Door bay/));
    // A second use, in which the box stands elsewhere and the spawn is left out.
    await takePiece(page, /^Door bay/);
    await plate.click(0.7, 0.7);
    await expect(item(page, /^Door bay/)).toHaveCount(2);
    await page.keyboard.press('s');
    // Both are called the same: the second is told by where it stands, once it is the one that is chosen.
    const chosen = page.locator('sv-item-list [role=option][aria-selected=true]');
    await expect(chosen).not.toContainText(first);
    const second = await placeOf(chosen);
    await within(page, 'spawn').getByRole('button', { name: 'Hide spawn here' }).click();
    await expect(within(page, 'spawn')).toContainText('hidden');
    await within(page, 'box').getByRole('button', { name: 'Move box here' }).click();
    await expect(page.locator('[role=dialog] :focus')).toHaveCount(1);
    await page.getByRole('dialog').getByLabel('By X').fill('0.5+0.25');
    await page.getByRole('dialog').getByLabel('By X').press('Tab');
    await page.getByRole('dialog').getByRole('button', { name: 'Move' }).click();
    await expect(within(page, 'box')).toContainText('moved');
    await saved(page);
    await page.reload();
    await item(page, new RegExp(second)).click();
    await expect(within(page, 'box')).toContainText('moved');
    await within(page, 'spawn').getByRole('button', { name: 'Use the shared spawn' }).click();
    await expect(within(page, 'spawn')).not.toContainText('hidden');
    await within(page, 'box').getByRole('button', { name: 'Change box everywhere' }).click();
    await page.getByRole('dialog').getByRole('button', { name: 'Change everywhere' }).click();
    await expect(within(page, 'box')).not.toContainText('moved');

    // Opened, it has coordinates of its own, and it cannot stand in itself.
    await page.getByRole('button', { name: 'Edit for all' }).click();
    await expect(page.getByRole('heading', { name: 'Door bay', level: 2 }).first()).toBeVisible();
    await expect(page.getByText(/Changes here change it in 1 level\./)).toBeVisible();
    await takePiece(page, /^Door bay/);
    await plate.click(0.8, 0.8);
    await expect(page.getByText('Door bay cannot be placed in Door bay: it would contain itself')).toBeVisible();
    await page
      .getByRole('button', { name: /^Delete$/ })
      .first()
      .click();
    await expect(page.getByText(/Door bay is or was used in Glass Heart/)).toBeVisible();
    await page.getByRole('button', { name: 'Back to Glass Heart' }).click();

    // Parting ways leaves things; undo brings the use back.
    await item(page, /^Door bay/)
      .first()
      .click();
    await command(page, /^Turn into plain content/);
    await expect(item(page, /^box/)).toHaveCount(1);
    await expect(item(page, /^Door bay/)).toHaveCount(1);
    await page.keyboard.press('Control+z');
    await expect(item(page, /^Door bay/)).toHaveCount(2);
    await saved(page);
    await deleteStratum(page, 'Structure');
  });

  test('of the demo bake with their level, and a change reaches every level that has them', async ({
    quietPage: page,
    stravel,
  }) => {
    await introduce(page, stravel.address, '/layout/mould-bench');
    await expect(page.getByText(/Changes here change it in 2 levels/)).toBeVisible();
    await expect(page.locator('footer')).toContainText('Changes affect 2 levels');
    await item(page, /^crate/).click();
    await page.getByRole('button', { name: 'Duplicate' }).click();
    await expect(item(page, /^crate/)).toHaveCount(2);
    await saved(page);
    await page.goto(`${stravel.address}${DEMO}/layout/mould-room`);
    await page
      .locator('sv-strata-stack')
      .getByRole('button', { name: /^Benches/ })
      .click();
    await item(page, /^Mould bench/)
      .first()
      .click();
    await expect(page.locator('sv-assembly-card li')).toHaveCount(4);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.locator('sv-assembly-card li')).toHaveCount(3);
  });
});
