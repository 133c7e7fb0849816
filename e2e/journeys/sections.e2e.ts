import { checkAxe } from '../fixtures/check-axe';
import { expect, introduce, test } from '../fixtures/stravel';
import { PlatePage } from '../pages/plate';

test.describe('Sections', () => {
  test('makes another cave of new seed, keeps a pinned wall, undoes, and comes back after a reload', async ({
    quietPage: page,
    stravel,
  }) => {
    await introduce(page, stravel.address, '/sections/potash-grotto');
    const seed = page.getByLabel('Seed, a number or a word');
    const walls = page.locator('footer').getByText(/\d+ walls/);
    await expect(seed).toHaveValue('hollow');
    await expect(walls).toBeVisible();
    const before = await walls.textContent();
    // The first wall that a click over the plan finds.
    const plate = new PlatePage(page);
    const inHand = page.getByText('Selected wall');
    for (let y = 0.25; y < 0.75 && !(await inHand.isVisible()); y += 0.07) {
      for (let x = 0.15; x < 0.9 && !(await inHand.isVisible()); x += 0.05) {
        await plate.click(x, y);
        // What the click found must be drawn before the next one, which would let it go.
        await page.evaluate(() => new Promise((drawn) => requestAnimationFrame(() => requestAnimationFrame(drawn))));
      }
    }
    await expect(inHand).toBeVisible();
    await page.keyboard.press('ArrowRight');
    const pin = page.getByRole('button', { name: /^moved \d+ × \d+ squares/ });
    await expect(pin).toBeVisible();
    const pinned = await pin.textContent();
    await page.getByRole('button', { name: 'New seed' }).click();
    await expect(seed).not.toHaveValue('hollow');
    await expect(walls).not.toHaveText(before ?? '');
    await expect(pin).toHaveText(pinned ?? '');
    // Hidden, it stays away as well.
    await pin.click();
    await page.getByRole('button', { name: 'Hide wall' }).click();
    await expect(page.getByRole('button', { name: /^hidden \d+ × \d+ squares/ })).toBeVisible();
    await expect(page.getByText('All changes saved')).toBeVisible();
    const kept = await seed.inputValue();
    await page.reload();
    await expect(seed).toHaveValue(kept);
    await expect(page.getByRole('button', { name: /^hidden/ })).toBeVisible();
    for (let i = 0; i < 3; i++) await page.getByRole('button', { name: 'Undo' }).click();
    await expect(seed).toHaveValue('hollow');
    await expect(page.getByRole('button', { name: /^(hidden|moved)/ })).toHaveCount(0);
    await expect(walls).toHaveText(before ?? '');
  });

  test('says when the step limit stopped it short, refuses a border without an inside, and goes on', async ({
    quietPage: page,
    stravel,
  }) => {
    await introduce(page, stravel.address, '/sections/sump');
    const set = async (label: string, value: string): Promise<void> => {
      await page.getByLabel(label, { exact: true }).fill(value);
      await page.getByLabel(label, { exact: true }).press('Enter');
    };
    // What a number would make is seen as it is typed, and is no edit.
    const sent: string[] = [];
    page.on('request', (request) => {
      if (request.method() === 'POST') sent.push(request.url());
    });
    const limit = page.getByLabel('step limit', { exact: true });
    await limit.fill('40');
    await expect(page.getByText(/stopped after 40 steps/)).toBeVisible();
    await limit.press('Escape');
    await expect(page.getByText(/stopped after/)).toHaveCount(0);
    expect(sent).toEqual([]);
    await set('step limit', '50');
    await expect(page.getByText(/stopped after 50 steps .* The step limit of the recipe ended the walk/)).toBeVisible();
    await set('border', '60');
    await expect(page.getByRole('alert')).toContainText(
      'burrow: a border of 60 leaves nothing inside 30 by 44 squares',
    );
    await page.getByRole('button', { name: 'Undo' }).click();
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByRole('alert')).toHaveCount(0);
    await expect(page.getByText(/stopped after/)).toHaveCount(0);
  });

  test('carves a million squares with progress, is cancelled, and leaves the page responsive', async ({
    quietPage: page,
    stravel,
  }) => {
    await introduce(page, stravel.address, '/sections/mould-room');
    await page.getByRole('button', { name: 'Add a burrow' }).first().click();
    await expect(page.locator('footer').getByText(/\d+ walls/)).toBeVisible();
    for (const [label, value] of [
      // Every last square: however fast the machine, that takes longer than a click.
      ['open floor', '100'],
      ['step limit', '1000000000'],
      ['rows', '2000'],
      ['columns', '2000'],
    ]) {
      await page.getByLabel(label, { exact: true }).fill(value);
      await page.getByLabel(label, { exact: true }).press('Enter');
    }
    await expect(page.getByRole('progressbar')).toBeVisible();
    // The run before, of fewer columns, may end while the button is being pressed.
    await expect(async () => {
      await page.getByRole('button', { name: 'Cancel' }).dispatchEvent('click', undefined, { timeout: 2000 });
      await expect(page.getByText('Cancelled.')).toBeVisible({ timeout: 2000 });
    }).toPass();
    await page.getByLabel('open floor', { exact: true }).fill('40');
    await page.getByLabel('open floor', { exact: true }).press('Enter');
    await page.getByLabel('rows', { exact: true }).fill('20');
    await page.getByLabel('rows', { exact: true }).press('Enter');
    await page.getByLabel('columns', { exact: true }).fill('20');
    await page.getByLabel('columns', { exact: true }).press('Enter');
    await expect(page.locator('footer').getByText('of 400 squares open')).toBeVisible();
  });

  test('has no accessibility fault that axe can find', async ({ quietPage: page, stravel }) => {
    await introduce(page, stravel.address, '/sections/potash-grotto');
    await expect(page.locator('footer').getByText(/\d+ walls/)).toBeVisible();
    await checkAxe(page);
  });
});
