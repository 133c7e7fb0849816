import AxeBuilder from '@axe-core/playwright';
import { expect, introduce, test } from '../fixtures/stravel';

test.describe('Sets desk', () => {
  test('renames a level in place, keeps it over a reload, undoes it', async ({ quietPage: page, stravel }) => {
    await introduce(page, stravel.address);
    const cell = page.getByRole('gridcell', { name: 'Mould Room', exact: true });
    await cell.dblclick();
    await page.getByLabel('Level of Mould Room').fill('Mould Loft');
    await page.keyboard.press('Enter');
    // The cell is called by what is typed while its editor is still open.
    await expect(page.getByLabel('Level of Mould Room')).toHaveCount(0);
    await expect(page.getByText('All changes saved')).toBeVisible();
    await page.reload();
    await expect(page.getByRole('gridcell', { name: 'Mould Loft', exact: true })).toBeVisible();
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByRole('gridcell', { name: 'Mould Room', exact: true })).toBeVisible();
    await expect(page.getByText('All changes saved')).toBeVisible();
  });

  test('refuses a number that is none and keeps what was typed', async ({ quietPage: page, stravel }) => {
    await introduce(page, stravel.address);
    const row = page.getByRole('row').filter({ hasText: 'Furnace One' });
    await row.locator('[data-cell$=":field-shards"]').dblclick();
    const editor = page.getByLabel('Shards of Furnace One');
    await editor.fill('seven');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('alert').filter({ hasText: '“seven” is not a number.' })).toBeVisible();
    await expect(editor).toHaveValue('seven');
    await editor.fill('21');
    await page.keyboard.press('Enter');
    await expect(row.locator('[data-cell$=":field-shards"]')).toHaveText('21');
  });

  test('creates, duplicates, reorders, bins and puts back by keys and menus', async ({ quietPage: page, stravel }) => {
    await introduce(page, stravel.address);
    await page.getByRole('gridcell', { name: 'Sorting Hall', exact: true }).click();
    await page.keyboard.press('Control+d');
    await page
      .getByRole('dialog', { name: 'Duplicate Sorting Hall' })
      .getByRole('button', { name: 'Duplicate', exact: true })
      .click();
    const copy = page.getByRole('gridcell', { name: 'Sorting Hall copy', exact: true });
    await expect(copy).toBeVisible();
    await expect(copy).toBeFocused();
    await page.keyboard.press('Alt+ArrowUp');
    const names = page.locator('[data-cell$=":name"]');
    await expect(names.filter({ hasText: /Sorting Hall/ }).first()).toHaveText(/copy/);
    await page.keyboard.press('Delete');
    await expect(copy).toHaveCount(0);
    await page.getByRole('button', { name: 'More', exact: true }).click();
    await page.getByRole('menuitem', { name: /^Bin/ }).click();
    await page.getByRole('dialog').getByRole('button', { name: 'Put back' }).first().click();
    await page.getByRole('dialog').getByRole('button', { name: 'Close' }).click();
    await expect(copy).toBeVisible();
  });

  test('opens anything by name with one key', async ({ quietPage: page, stravel }) => {
    await introduce(page, stravel.address);
    await page.keyboard.press('/');
    await page.getByRole('combobox', { name: 'Name or code' }).fill('glas hea');
    await expect(page.getByRole('option').first()).toContainText('Glass Heart');
    await page.getByRole('combobox', { name: 'Name or code' }).fill('marsh');
    await page.keyboard.press('Enter');
    await expect(page).toHaveURL(/sets\/register\/lamps/);
    await expect(page.getByRole('gridcell', { name: 'Marsh light', exact: true })).toHaveClass(/active/);
    for (const [typed, dialog] of [
      ['codes', 'Codes'],
      ['readiness', 'Readiness rules'],
      ['start h', 'Start here'],
      ['bin', 'Bin'],
    ]) {
      await page.keyboard.press('/');
      await page.getByRole('combobox', { name: 'Name or code' }).fill(typed);
      await page.keyboard.press('Enter');
      await expect(page.getByRole('dialog', { name: dialog, exact: true })).toBeVisible();
      await expect(page).not.toHaveURL(/deed/);
      await page.keyboard.press('Escape');
      await expect(page.getByRole('dialog')).toHaveCount(0);
    }
  });

  test('shows its first table with what it needs alone', async ({ page, stravel }) => {
    await page.addInitScript(() => {
      const watch = new MutationObserver(() => {
        if (
          !Array.from(document.querySelectorAll('[role=gridcell]')).some(({ textContent }) =>
            textContent?.includes('Cullet Yard'),
          )
        )
          return;
        Object.assign(globalThis, { tableAt: performance.now() });
        watch.disconnect();
      });
      watch.observe(document, { childList: true, subtree: true, characterData: true });
    });
    await page.goto(`${stravel.address}/c/cinderbrine/sets`);
    await expect(page.getByRole('gridcell', { name: 'Cullet Yard', exact: true })).toBeVisible();
    // What comes later is not of the first table.
    const needed = await page.evaluate(() => {
      const { tableAt } = globalThis as unknown as { tableAt: number };
      const loads = performance.getEntriesByType('resource') as PerformanceResourceTiming[];
      return (
        loads
          // The page's own files: what the collection holds is another matter.
          .filter(({ name, responseEnd }) => responseEnd <= tableAt && !name.includes('/api/'))
          .map(({ name, transferSize }) => ({ name, transferSize }))
      );
    });
    const scripts = needed.filter(({ name }) => name.endsWith('.js'));
    expect(scripts.length).toBeGreaterThan(3);
    for (const { name } of scripts) {
      const text = await (await page.request.get(name)).text();
      // What draws models is loaded where models are drawn, what checks patterns once there is something to check.
      for (const later of ['WebGL2RenderingContext', 'RE2JS'])
        expect([name, text.includes(later)]).toEqual([name, false]);
    }
    const bytes = needed.reduce((sum, { transferSize }) => sum + transferSize, 0);
    expect(bytes).toBeLessThan(325_000);
    expect(bytes).toBeGreaterThan(200_000);
  });

  test('has no accessibility fault that axe can find, in both themes', async ({ quietPage: page, stravel }) => {
    await introduce(page, stravel.address);
    for (const theme of ['light', 'dark']) {
      await page.evaluate((name) => (document.documentElement.dataset['theme'] = name), theme);
      const { violations } = await new AxeBuilder({ page })
        .withTags(['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'])
        .analyze();
      expect(violations.map(({ id, nodes }) => `${id}: ${nodes[0].html}`)).toEqual([]);
    }
  });
});

test.describe('Two tabs', () => {
  test('let edits to different fields both stand and ask about the same field', async ({ browser, stravel }) => {
    const first = await (await browser.newContext()).newPage();
    const second = await (await browser.newContext()).newPage();
    await introduce(first, stravel.address, '/sets', 'Odile');
    await introduce(second, stravel.address, '/sets', 'Renke');
    const edit = async (page: typeof first, column: string, label: string, value: string) => {
      await page.getByRole('row').filter({ hasText: 'Chimney Foot' }).locator(`[data-cell$=":${column}"]`).dblclick();
      await page.getByLabel(label).fill(value);
      await page.keyboard.press('Enter');
    };
    await edit(first, 'field-shards', 'Shards of Chimney Foot', '31');
    await expect(
      second.getByRole('row').filter({ hasText: 'Chimney Foot' }).locator('[data-cell$=":field-shards"]'),
    ).toHaveText('31');
    await edit(second, 'field-note', 'Note of Chimney Foot', 'soot');
    await expect(first.getByRole('row').filter({ hasText: 'Chimney Foot' })).toContainText('soot');

    // Both change the same field while the second is cut off.
    await second.context().setOffline(true);
    await edit(second, 'field-shards', 'Shards of Chimney Foot', '50');
    await edit(first, 'field-shards', 'Shards of Chimney Foot', '40');
    await expect(first.getByText('All changes saved')).toBeVisible();
    await expect(second.getByText(/No server/)).toBeVisible();
    await second.context().setOffline(false);
    const dialog = second.getByRole('dialog', { name: 'Conflicts with a newer change' });
    await expect(dialog).toContainText('50');
    await expect(dialog).toContainText('40');
    await dialog.getByRole('button', { name: 'Keep mine' }).click();
    await expect(
      first.getByRole('row').filter({ hasText: 'Chimney Foot' }).locator('[data-cell$=":field-shards"]'),
    ).toHaveText('50');
  });
});
