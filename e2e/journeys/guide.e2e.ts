import { expect, introduce, test } from '../fixtures/stravel';
import { checkAxe } from '../fixtures/check-axe';

test.describe('Guide', () => {
  test('opens at the desk beside the work, is searched, and leads from a panel to its part', async ({
    quietPage: page,
    stravel,
  }) => {
    await introduce(page, stravel.address, '/sight/sorting-hall');
    await page.keyboard.press('F1');
    const guide = page.getByRole('complementary', { name: 'Guide' });
    await expect(guide.getByRole('region', { name: 'Sight' })).toBeVisible();
    await expect(guide.getByRole('heading', { name: 'What goes in, what comes out, first steps' })).toBeVisible();
    const picture = guide.getByRole('img', { name: 'Sight' });
    await expect.poll(() => picture.evaluate((one: HTMLImageElement) => one.naturalWidth)).toBeGreaterThan(1000);
    await checkAxe(page);
    await guide.getByRole('searchbox').fill('tile goal');
    await guide.getByRole('list', { name: 'Found in the guide' }).getByRole('button').first().click();
    await expect(guide.getByRole('region', { name: 'Layout' })).toBeVisible();
    await expect(guide.locator('.asked').getByRole('heading', { name: 'Tile floors' })).toBeInViewport();
    await guide.getByRole('searchbox').fill('xylophone');
    await expect(guide).toContainText('Nothing in the guide has “xylophone”');
    await guide.getByRole('searchbox').press('Escape');
    await expect(guide).toHaveCount(0);
    await page.getByRole('button', { name: 'Help: worst pockets' }).click();
    await expect(guide.locator('.asked').getByRole('heading', { name: 'Worst pockets' })).toBeInViewport();
    await guide.getByLabel('Page of the guide').selectOption({ label: 'Budget' });
    await guide.getByRole('link', { name: 'Figures and formulas' }).click();
    await expect(guide.getByRole('region', { name: 'Figures and formulas' })).toBeVisible();
    await page.getByRole('button', { name: 'Close the guide' }).click();
    await expect(guide).toHaveCount(0);
  });

  test('greets on the first visit of a desk, does what comes first, and stays away once put away', async ({
    page,
    stravel,
  }) => {
    await stravel.empty('tidal-gate');
    await introduce(page, stravel.address, '/layout/tidal-gate');
    const card = page.getByRole('region', { name: 'First steps' });
    await expect(card).toContainText('a level as data.');
    await checkAxe(page);
    await card.getByRole('button', { name: 'Draw a wall' }).click();
    await expect(page.getByRole('button', { name: 'wall', exact: true })).toHaveAttribute('aria-pressed', 'true');
    await card.getByRole('button', { name: 'Got it' }).click();
    await expect(card).toHaveCount(0);
    await page.reload();
    await expect(page.getByRole('button', { name: 'Help: Layout' })).toBeVisible();
    await expect(card).toHaveCount(0);
    // Each desk has its own, and its question mark brings it back.
    await page.getByRole('link', { name: 'Pack' }).click();
    await card.getByRole('button', { name: 'Check levels' }).click();
    await expect(card).toContainText('files for the game.');
    await page.getByRole('link', { name: 'Layout' }).click();
    await page.getByRole('button', { name: 'Help: Layout' }).click();
    await expect(card).toBeVisible();
  });
});
