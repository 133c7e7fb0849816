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
    const late = page.getByRole('button', { name: /cell 5,3 needed at/ });
    await expect(late).toBeVisible({ timeout: 30000 });
    await expect(page.getByText('fresh', { exact: true }).first()).toBeVisible({ timeout: 30000 });
    await expect(page.getByRole('link', { name: /Cells.*1 late/ })).toBeVisible();
    await page.goto(`${stravel.address}${DEMO}/findings`);
    await page.getByRole('button', { name: 'cells', exact: true }).click();
    await page.getByText(/No floor under the walk for 1.08 s/).click();
    await expect(page).toHaveURL(/\/cells\/low-water\?at=/);
    await page.getByLabel('load within', { exact: true }).fill('60');
    await page.getByLabel('load within', { exact: true }).press('Enter');
    await expect(page.getByText('stale', { exact: true }).first()).toBeVisible();
    await page.getByRole('button', { name: /^Rehearse/ }).click();
    await expect(page.getByText('Everything came in time.')).toBeVisible({ timeout: 30000 });
    // Dropping is never nearer than loading.
    await expect(page.getByLabel('unload beyond')).toHaveValue('60');
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByLabel('load within', { exact: true })).toHaveValue('12');
  });

  test('cuts another level, takes a path drawn on it, names what is wrong with a walk, and keeps it over a reload', async ({
    quietPage: page,
    stravel,
  }) => {
    // Of few placements: without a graphics card, frames of many take the time that the cut is waited for.
    await introduce(page, stravel.address, '/cells/furnace-one');
    await page.getByRole('button', { name: 'Cut it into cells' }).click();
    await expect(page.locator('footer').getByText(/\d+ cells of 32 m/)).toBeVisible();
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

  test('shows the walk over time: the playhead is dragged, moved by keys and played', async ({
    quietPage: page,
    stravel,
  }) => {
    await introduce(page, stravel.address, '/cells/low-water');
    const playhead = page.getByRole('slider', { name: 'Moment of the walk' });
    await expect(playhead).toHaveAttribute('aria-valuenow', '0.0', { timeout: 30000 });
    const late = page.getByRole('button', { name: /cell 5,3 needed at/ });
    // The longest stage first.
    await expect(late).toContainText(/(queue|read|unpack|activate).* \d/);
    await late.click();
    const now = async (): Promise<number> => Number(await playhead.getAttribute('aria-valuenow'));
    await expect.poll(now).toBeGreaterThan(40);
    const before = await now();
    await playhead.press('ArrowRight');
    await expect.poll(now).toBeGreaterThan(before);
    const box = await playhead.boundingBox();
    if (!box) throw new Error('no playhead');
    await page.mouse.move(box.x + box.width / 2, box.y + 30);
    await page.mouse.down();
    await page.mouse.move(box.x - 200, box.y + 30);
    await page.mouse.up();
    await expect.poll(now).toBeLessThan(before - 5);
    const dragged = await now();
    await page.keyboard.press('Space');
    await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible();
    await expect.poll(now).toBeGreaterThan(dragged);
    await page.getByRole('button', { name: 'Stop', exact: true }).click();
    await page.getByRole('button', { name: 'Timeline' }).click();
    await expect(playhead).toHaveCount(0);
    await page.reload();
    await expect(page.getByRole('button', { name: 'Timeline' })).toHaveAttribute('aria-expanded', 'false', {
      timeout: 30000,
    });
  });

  test('loads a cell from inside a volume that is drawn here, before the walk comes near it', async ({
    quietPage: page,
    stravel,
  }) => {
    await introduce(page, stravel.address, '/cells/low-water');
    await expect(page.getByRole('button', { name: /cell 5,3 needed at/ })).toBeVisible({ timeout: 30000 });
    await page.keyboard.press('v');
    await expect(page.getByText('Click one, or drag a new one')).toBeVisible();
    // All of the flat but its last part: the walk begins inside.
    await new PlatePage(page).drag(0.12, 0.1, 0.75, 0.95);
    const chosen = page.getByLabel('Volume that loads cells');
    await expect(chosen.locator('option:checked')).toHaveText('Load volume 3');
    await page.getByLabel('Add a cell').selectOption('5,3');
    await expect(page.getByRole('button', { name: 'Stop loading cell 5,3' })).toBeVisible();
    await page.getByLabel('Add a cell').selectOption('7,7');
    await page.getByRole('button', { name: 'Stop loading cell 7,7' }).click();
    await checkAxe(page);
    await page.getByRole('button', { name: /^Rehearse/ }).click();
    await expect(page.getByText('Everything came in time.')).toBeVisible({ timeout: 30000 });
    await page.reload();
    const rule = page.getByRole('button', { name: /Inside Load volume 3/ });
    await expect(rule).toContainText('1 cell', { timeout: 20000 });
    // Smaller cells: all that lie where it was.
    await page.getByLabel('cell size').fill('25');
    await page.getByLabel('cell size').press('Enter');
    await expect(rule).toContainText('4 cells');
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(rule).toContainText('1 cell');
    await page.getByRole('button', { name: 'Delete the rule of Load volume 3' }).click();
    await expect(rule).toHaveCount(0);
  });

  test('has no accessibility fault that axe can find', async ({ quietPage: page, stravel }) => {
    await introduce(page, stravel.address, '/cells/low-water');
    await expect(page.locator('footer').getByText('64 cells of 50 m')).toBeVisible({ timeout: 20000 });
    await checkAxe(page);
  });
});
