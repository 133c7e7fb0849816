import type { Locator } from '@playwright/test';
import { checkAxe } from '../fixtures/check-axe';
import { expect, introduce, test } from '../fixtures/stravel';

/** What a part of the page looks like now. */
const looks = async (part: Locator): Promise<string> => (await part.screenshot()).toString('base64');

test.describe('The model', () => {
  test('is gone through by keys at the height of one’s eyes, and turns again afterwards', async ({
    quietPage: page,
    stravel,
  }) => {
    // Frames are drawn without a graphics card: the fewer their pixels the better.
    await page.setViewportSize({ width: 900, height: 560 });
    await introduce(page, stravel.address, '/layout/sorting-hall');
    await expect(page.getByText(/selected of 322/)).toBeVisible();
    await page.getByRole('button', { name: 'Plan', exact: true }).click();
    await page.keyboard.press('i');
    const eyes = page.getByRole('application', { name: /^Eye level:/ });
    await expect(eyes).toBeFocused();
    await expect(page.getByRole('button', { name: 'Eye level' })).toHaveAttribute('aria-pressed', 'true');
    await checkAxe(page);
    for (const key of ['ArrowUp', 'ArrowLeft', 'PageDown']) {
      const before = await looks(eyes);
      await page.keyboard.down(key);
      await expect.poll(async () => (await looks(eyes)) === before).toBe(false);
      await page.keyboard.up(key);
    }
    await eyes.press('Escape');
    await expect(eyes).toHaveCount(0);
    await expect(page.getByRole('img', { name: 'Model of the level' })).toBeVisible();
    await expect(page.getByRole('button', { name: 'Eye level' })).toHaveAttribute('aria-pressed', 'false');
  });

  test('shows pieces in the strip as it shows them in the level', async ({ quietPage: page, stravel }) => {
    await introduce(page, stravel.address, '/layout/sorting-hall');
    await expect(page.getByText(/selected of 322/)).toBeVisible();
    await page.getByRole('button', { name: 'Kits' }).click();
    const crate = page.getByRole('option', { name: /^crate/ }).locator('img');
    await expect(crate).toHaveJSProperty('naturalWidth', 168, { timeout: 60000 });
    // Folded, what was drawn is there.
    await page.getByRole('button', { name: 'Kits' }).click();
    await expect(page.getByRole('group', { name: 'Last used pieces' }).locator('img').first()).toBeVisible();
  });

  test('is cut open upright, and a look at it is kept under a name over a reload', async ({
    quietPage: page,
    stravel,
  }) => {
    await introduce(page, stravel.address, '/layout/sorting-hall');
    await expect(page.getByText(/selected of 322/)).toBeVisible();
    const model = page.getByRole('img', { name: 'Model of the level' });
    const shown = page.getByRole('button', { name: 'Shown', exact: true });
    const whole = await looks(model);
    await shown.click();
    const cut = page.getByLabel('Cut the model');
    await cut.selectOption({ label: 'at x, keep less' });
    await expect(page.getByLabel('Where the model is cut, metres along x')).toHaveValue(/^-?[0-9.]+$/);
    await checkAxe(page);
    await cut.press('Escape');
    await expect.poll(async () => (await looks(model)) === whole).toBe(false);
    await shown.click();
    await cut.selectOption({ label: 'nowhere' });
    const name = 'From the gate, where the lamp stands, before the second shift';
    await page.getByLabel('Name of this look').fill(name);
    await page.getByRole('button', { name: 'Keep', exact: true }).click();
    await page.keyboard.press('Escape');
    const scale = page.locator('sv-plate-line').getByText(/^[0-9.]+ m$/);
    const before = await scale.textContent();
    const plan = page.getByRole('application', { name: /^Plan of Sorting Hall/ });
    await plan.hover();
    await page.mouse.wheel(0, 1500);
    await expect(scale).not.toHaveText(before ?? '');
    await page.reload();
    await expect(page.getByText(/selected of 322/)).toBeVisible();
    await shown.click();
    await page.getByRole('button', { name: name.slice(0, 60), exact: true }).click();
    await page.keyboard.press('Escape');
    await expect(scale).toHaveText(before ?? '');
    await shown.click();
    await page.getByRole('button', { name: `Remove the viewpoint ${name.slice(0, 60)}` }).click();
    await expect(page.getByRole('button', { name: name.slice(0, 60), exact: true })).toHaveCount(0);
  });

  test('has shade in its corners once it rests, as long as it is looked at from there', async ({
    quietPage: page,
    stravel,
  }) => {
    // As on a machine that draws fast: where there is no graphics card a frame takes too long for it.
    await page.addInitScript(() => {
      let ms = 0;
      performance.now = () => (ms += 0.1);
      WebGL2RenderingContext.prototype.clientWaitSync = () => WebGL2RenderingContext.ALREADY_SIGNALED;
    });
    await introduce(page, stravel.address, '/layout/sorting-hall');
    await expect(page.getByText(/selected of 322/)).toBeVisible();
    const model = page.getByRole('img', { name: 'Model of the level' });
    await page.getByRole('button', { name: 'Model', exact: true }).click();
    const shown = page.getByRole('button', { name: 'Shown', exact: true });
    const shade = page.getByLabel('Shade in corners of the model, when it rests');
    await shown.click();
    await shade.uncheck();
    await page.keyboard.press('Escape');
    const plain = await looks(model);
    await shown.click();
    await shade.check();
    await page.keyboard.press('Escape');
    await expect.poll(async () => (await looks(model)) === plain).toBe(false);
    // The shade alone is what is otherwise.
    await shown.click();
    await shade.uncheck();
    await page.keyboard.press('Escape');
    await expect.poll(async () => (await looks(model)) === plain).toBe(true);
  });
});
