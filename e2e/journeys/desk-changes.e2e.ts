import { expect, introduce, test } from '../fixtures/stravel';
import { pixelAt } from '../pages/pixels';

/** Changes that are looked at; STRAVEL_CHANGES=50 makes the long run. */
const CHANGES = Number(process.env['STRAVEL_CHANGES'] ?? 12);
/** Keys of two desks with a plate, and the names of their pages. */
const DESKS = [
  ['Alt+3', 'Sections'],
  ['Alt+2', 'Layout'],
] as const;
/** Sum of red, green and blue below which paper would be black. */
const BLACK = 60;

test.use({ colorScheme: 'light' });
test.setTimeout(60000 + CHANGES * 12000);

test('a changed desk never shows plan and model on black', async ({ quietPage: page, stravel }) => {
  await introduce(page, stravel.address, '/layout/sorting-hall');
  const made = await page.evaluate(() => {
    const counts = { contexts: 0 };
    const own = Reflect.get(HTMLCanvasElement.prototype, 'getContext') as (...given: unknown[]) => unknown;
    const seen = new WeakSet();
    // Counts the canvases that are drawn by WebGL.
    Reflect.set(
      HTMLCanvasElement.prototype,
      'getContext',
      function (this: HTMLCanvasElement, ...parameters: unknown[]) {
        if (String(parameters[0]).startsWith('webgl') && !seen.has(this)) {
          seen.add(this);
          counts.contexts += 1;
        }
        return own.apply(this, parameters);
      },
    );
    (globalThis as unknown as { counts: typeof counts }).counts = counts;
    return counts.contexts;
  });
  expect(made).toBe(0);
  for (let i = 0; i < CHANGES; i++) {
    const [key, name] = DESKS[i % 2];
    await page.keyboard.press(key);
    await expect(page.getByRole('link', { name, exact: false }).and(page.locator('[aria-current=page]'))).toBeVisible();
    const plan = await page.getByRole('application').boundingBox();
    if (!plan) throw new Error('the plan is not shown');
    // What is drawn by then is what stays until something redraws.
    await page.evaluate(() => new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(resolve))));
    const [red, green, blue] = await pixelAt(page, plan.x + 3, plan.y + 3);
    expect(red + green + blue, `change ${i + 1}, to ${name}`).toBeGreaterThan(BLACK);
  }
  expect(await page.evaluate(() => (globalThis as unknown as { counts: { contexts: number } }).counts.contexts)).toBe(
    CHANGES,
  );
});

test('what was drawn stays until the next desk has drawn it, and goes then', async ({ quietPage: page, stravel }) => {
  await introduce(page, stravel.address, '/layout/cullet-yard');
  await expect(page.getByText(/of 14\d\d/)).toBeVisible();
  await page.evaluate(() => {
    const look = (): void => {
      if (document.querySelector('sv-kept-picture:not([hidden])')) document.body.dataset['kept'] = 'seen';
      requestAnimationFrame(look);
    };
    look();
  });
  await page.getByRole('link', { name: 'Cells' }).click();
  await expect(page.locator('body[data-kept=seen]')).toHaveCount(1);
  await expect(page.locator('sv-kept-picture')).toBeHidden();
});

test('a drawing context that the browser took away is drawn anew when it comes back', async ({
  quietPage: page,
  stravel,
}) => {
  await introduce(page, stravel.address, '/layout/sorting-hall');
  await page.getByRole('button', { name: 'Model', exact: true }).click();
  await page.mouse.move(0, 0);
  const model = page.getByRole('img', { name: 'Model of the level' });
  const drawn = async (): Promise<string> => (await model.screenshot()).toString('base64');
  let before = '';
  await expect
    .poll(async () => {
      const last = before;
      before = await drawn();
      return before === last;
    })
    .toBe(true);
  await page.evaluate(async () => {
    const canvas = document.querySelector<HTMLCanvasElement>('canvas.drawing');
    const lose = canvas?.getContext('webgl2')?.getExtension('WEBGL_lose_context');
    if (!canvas || !lose) throw new Error('there is no context to lose');
    const lost = new Promise((done) => canvas.addEventListener('webglcontextlost', done, { once: true }));
    lose.loseContext();
    await lost;
    Reflect.set(globalThis, 'restoreContext', () => lose.restoreContext());
  });
  await expect.poll(drawn).not.toBe(before);
  await page.evaluate(() => (Reflect.get(globalThis, 'restoreContext') as () => void)());
  await expect.poll(drawn).toBe(before);
});
