import AxeBuilder from '@axe-core/playwright';
import { expect, introduce, test } from '../fixtures/stravel';
import { PlatePage } from '../pages/plate';
import { newStratum } from '../pages/strata';

test.describe('Context menus', () => {
  test('offer on plan, model, contents and by a key what the selection bar and the key list do', async ({
    quietPage: page,
    stravel,
  }) => {
    await introduce(page, stravel.address, '/layout/swim-test');
    const plate = new PlatePage(page);
    await newStratum(page);
    const item = (name: string | RegExp) => page.getByRole('menuitem', { name });
    await page.keyboard.press('b');
    await plate.drag(0.3, 0.3, 0.5, 0.5);
    await page.keyboard.press('Escape');
    await page.keyboard.press('Escape');

    // A right click takes what lies there; a right drag only pans.
    await page.mouse.click(...(await plate.at(0.4, 0.4)), { button: 'right' });
    await expect(item('Duplicate Ctrl D')).toBeVisible();
    expect((await new AxeBuilder({ page }).include('.mat-mdc-menu-panel').analyze()).violations).toEqual([]);
    await expect(page.getByText('1 selected of 1')).toBeVisible();
    await item('Duplicate Ctrl D').click();
    await expect(page.getByText('1 selected of 2')).toBeVisible();
    await page.mouse.move(...(await plate.at(0.4, 0.4)));
    await page.mouse.down({ button: 'right' });
    await page.mouse.move(...(await plate.at(0.5, 0.5)));
    await page.mouse.up({ button: 'right' });
    await expect(page.getByRole('menu')).toHaveCount(0);

    // On nothing it lets go of the selection and offers what can be drawn.
    await page.mouse.click(...(await plate.at(0.95, 0.95)), { button: 'right' });
    await item('Draw').hover();
    await item('Put a door in a wall').click();
    await expect(page.getByLabel('Wall, door or window')).toHaveValue('door');
    await page.keyboard.press('Escape');

    // By keys, for what is selected; the plan has the focus again.
    await expect(page.getByRole('menu')).toHaveCount(0);
    await page.keyboard.press('Control+a');
    await plate.plan.focus();
    await page.keyboard.press('Shift+F10');
    await expect(item('Block')).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(page.getByRole('menu')).toHaveCount(0);
    await expect(plate.plan).toBeFocused();

    const lines = page.locator('sv-item-list').getByRole('option');
    await page.keyboard.press('Escape');
    await lines.first().click({ button: 'right' });
    await item('Block').hover();
    await expect(item('Join two into one')).toBeDisabled();
    // A menu that is on its way out does not hear the key.
    await expect(async () => {
      await page.keyboard.press('Escape');
      await expect(page.getByRole('menu')).toHaveCount(0, { timeout: 1000 });
    }).toPass();
    await expect(page.getByText('1 selected of 2')).toBeVisible();

    await page.getByRole('button', { name: /^Structure/ }).click({ button: 'right' });
    await expect(item('Name and role…')).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(page.getByRole('menu')).toHaveCount(0);

    await page.getByRole('button', { name: 'Model', exact: true }).click();
    await page.keyboard.press('f');
    const model = page.getByRole('img', { name: 'Model of the level' });
    await model.click({ button: 'right' });
    await expect(item('Delete Delete')).toBeVisible();
    await item('Delete Delete').click();
    await expect(page.getByText('0 selected of 1')).toBeVisible();
  });

  test('are there for lines of the table, pieces, pockets and cells', async ({ quietPage: page, stravel }) => {
    await introduce(page, stravel.address, '/sets');
    const item = (name: string | RegExp) => page.getByRole('menuitem', { name });
    const cell = page.getByRole('gridcell', { name: 'Sorting Hall', exact: true });
    await cell.click({ button: 'right' });
    await expect(item('Open in Layout')).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(page.getByRole('menu')).toHaveCount(0);
    await expect(cell).toBeFocused();
    await page.keyboard.press('Shift+F10');
    await expect(item('Open in Layout')).toBeVisible();
    await item('Open in Layout').click();

    await page
      .getByRole('group', { name: 'Last used pieces' })
      .getByTitle(/triangles?, used [1-9]/)
      .first()
      .click({ button: 'right' });
    await item('Select all of it here').click();
    await expect(page.getByText(/[1-9][0-9]* selected of/)).toBeVisible();

    await page.goto(`${stravel.address}/c/cinderbrine/sight/sorting-hall`);
    const plate = new PlatePage(page);
    await page.mouse.click(...(await plate.at(0.5, 0.5)), { button: 'right' });
    await expect(item('Draw a divider D')).toBeVisible();
    await page.keyboard.press('Escape');

    await page.goto(`${stravel.address}/c/cinderbrine/cells/sorting-hall`);
    await page.mouse.click(...(await plate.at(0.5, 0.5)), { button: 'right' });
    await expect(item('Rehearse R')).toBeVisible();
  });

  test('a range of check boxes goes with Shift', async ({ quietPage: page, stravel }) => {
    await introduce(page, stravel.address, '/sets');
    const boxes = page.getByRole('checkbox', { name: /^Select / });
    await boxes.nth(1).click();
    await boxes.nth(4).click({ modifiers: ['Shift'] });
    await expect(page.getByText('4 selected')).toBeVisible();
    await boxes.nth(2).click({ modifiers: ['Shift'] });
    await expect(page.getByText('1 selected')).toBeVisible();
  });
});
