import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { DEMO, expect, introduce, test } from '../fixtures/stravel';
import { PlatePage } from '../pages/plate';
import { newStratum } from '../pages/strata';

const saved = (page: Page) => expect(page.getByText('All changes saved')).toBeVisible();
const stratum = (page: Page, name: string) =>
  page.locator('sv-strata-stack').getByRole('button', { name: new RegExp(`^${name}`) });

const item = (page: Page, name: string | RegExp) => page.locator('sv-item-list').getByRole('option', { name });
const menu = (page: Page, name: string) => page.getByRole('button', { name: `${name} ▾` });

/** The menu of what else can be done with the selection, or with none. */
const rest = (page: Page) => page.getByRole('button', { name: /^(More|Select ▾)$/ });

/** A dialog takes the focus once it is open; what is typed before goes astray. */
async function opened(page: Page): Promise<void> {
  await expect(page.locator('[role=dialog] :focus')).toHaveCount(1);
}

async function fill(page: Page, label: string, text: string): Promise<void> {
  await opened(page);
  const box = page.getByRole('dialog').getByLabel(label, { exact: true });
  await box.fill(text);
  await box.press('Tab');
}

test.describe('Layout in depth', () => {
  test('keeps a change of a shared stratum in one level, compares, reverts and gives it to all', async ({
    quietPage: page,
    stravel,
  }) => {
    await introduce(page, stravel.address, '/layout/furnace-one');
    await stratum(page, 'Works base').click();
    const posts = item(page, /lamp post/);
    await posts.last().click();
    const x = page.getByLabel('Position X', { exact: true });
    const before = Number(await x.inputValue());
    await x.fill(`${before}+2.5`);
    await x.press('Enter');
    await page.getByRole('button', { name: 'Furnace One only' }).click();
    await expect(x).toHaveValue(String(before + 2.5));
    await expect(page.getByText('1 local change')).toBeVisible();
    await expect(page.getByText(/Changes affect this level only/)).toBeVisible();
    await saved(page);

    // The others have it as before; after a reload this level has its own again.
    await page.goto(`${stravel.address}${DEMO}/layout/sorting-hall`);
    await stratum(page, 'Works base').click();
    await item(page, /lamp post/)
      .last()
      .click();
    await expect(page.getByLabel('Position X', { exact: true })).toHaveValue(String(before));
    await page.goto(`${stravel.address}${DEMO}/layout/furnace-one`);
    await stratum(page, 'Works base').click();
    await item(page, /lamp post/)
      .last()
      .click();
    await expect(page.getByLabel('Position X', { exact: true })).toHaveValue(String(before + 2.5));

    await page.getByRole('button', { name: 'What to do with Works base' }).click();
    await page.getByRole('menuitem', { name: /Local changes/ }).click();
    const sheet = page.locator('sv-patches-sheet');
    await sheet.getByRole('button', { name: 'lamp post', exact: true }).click();
    await expect(
      sheet.getByRole('row', { name: new RegExp(`^position ${before}, 0, -57 ${before + 2.5}, 0, -57`) }),
    ).toBeVisible();
    await sheet.getByRole('button', { name: /^Change lamp post everywhere/ }).click();
    await expect(sheet).toContainText('is the same in all 8 levels');
    await sheet.getByRole('button', { name: 'Back' }).click();
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByText('1 local change')).toBeVisible();
    await page.getByRole('button', { name: 'What to do with Works base' }).click();
    await page.getByRole('menuitem', { name: /Local changes/ }).click();
    await sheet.getByRole('button', { name: 'Use the shared lamp post' }).click();
    await sheet.getByRole('button', { name: 'Back' }).click();
    await expect(page.getByText('1 local change')).toHaveCount(0);
    await expect(x).toHaveValue(String(before));
    await saved(page);
  });

  test('shares, orders, switches off and copies strata, and says who loses what', async ({
    quietPage: page,
    stravel,
  }) => {
    await stravel.empty('tidal-gate');
    await introduce(page, stravel.address, '/layout/tidal-gate');
    await page.getByRole('button', { name: 'Add a stratum' }).click();
    await page.getByRole('menuitem', { name: 'Add a shared stratum…' }).click();
    const dialog = page.getByRole('dialog');
    await opened(page);
    await dialog.getByLabel('Find a stratum or level').fill('works base');
    await dialog.getByRole('checkbox').check();
    await dialog.getByRole('button', { name: 'Add 1 to Tidal Gate' }).click();
    await expect(stratum(page, 'Works base')).toContainText('shared by 9');
    await newStratum(page);
    const names = page.locator('sv-strata-stack .name > span:first-child');
    await expect(names).toHaveText(['Stratum 2', 'Works base']);
    await page.getByRole('button', { name: 'What to do with Stratum 2' }).click();
    await page.getByRole('menuitem', { name: 'Move down' }).click();
    await expect(names).toHaveText(['Works base', 'Stratum 2']);
    await page.getByRole('button', { name: 'What to do with Stratum 2' }).click();
    await page.getByRole('menuitem', { name: 'Switch off in test runs' }).click();
    await expect(stratum(page, 'Stratum 2')).toContainText('switched off');
    await page.getByRole('button', { name: 'What to do with Works base' }).click();
    await page.getByRole('menuitem', { name: /separate copy for this level/ }).click();
    await expect(stratum(page, 'Works base')).toContainText('1 block, 10 placements');
    await page.getByRole('button', { name: 'What to do with Works base' }).click();
    await page.getByRole('menuitem', { name: 'Delete…' }).click();
    await expect(dialog).toContainText('Tidal Gate: 11 objects');
    await dialog.getByRole('button', { name: 'Cancel' }).click();
    for (let i = 0; i < 5; i++) await page.getByRole('button', { name: 'Undo' }).click();
    await expect(names).toHaveCount(0);
    await saved(page);
  });

  test('groups things, guards them, sets them aside and brings them back', async ({ quietPage: page, stravel }) => {
    await introduce(page, stravel.address, '/layout/weighbridge');
    await stratum(page, 'Dressing').click();
    await page.getByRole('button', { name: 'Add a group' }).click();
    await page.getByRole('menuitem', { name: 'New group' }).click();
    const dialog = page.getByRole('dialog');
    await opened(page);
    await dialog.getByLabel('Name').fill('Scrap');
    await dialog.getByLabel('Category').fill('look');
    await dialog.getByLabel('Guard').fill('The keeper counts it.');
    await dialog.getByRole('button', { name: 'Save' }).click();
    const sheet = page.locator('sv-select-sheet');
    await rest(page).click();
    await page.getByRole('menuitem', { name: 'By name, piece, size…' }).click();
    await sheet.getByLabel('Name').fill('cart');
    await expect(sheet.getByText(/^[1-9]\d* found$/)).toBeVisible();
    const count = Number(/\d+/.exec((await sheet.getByText(/found$/).textContent()) ?? '')?.[0]);
    await sheet.getByRole('button', { name: `Select ${count}` }).click();
    await page.getByRole('button', { name: 'What to do with group Scrap' }).click();
    await page.getByRole('menuitem', { name: 'Add the selection' }).click();
    await expect(page.locator('sv-group-tree')).toContainText(`${count} · look · guarded`);

    // Guarded: the delete key asks and says why.
    await page.keyboard.press('Delete');
    await expect(dialog).toContainText('Scrap: The keeper counts it.');
    await dialog.getByRole('button', { name: 'Cancel' }).click();
    const all = Number(/of (\d+)/.exec((await page.getByText(/selected of \d+/).textContent()) ?? '')?.[1]);
    await page.getByRole('button', { name: 'What to do with group Scrap' }).click();
    await page.getByRole('menuitem', { name: 'Park…' }).click();
    await opened(page);
    await dialog.getByLabel('Reason').fill('until the scale works');
    await dialog.getByRole('button', { name: 'Park' }).click();
    await page.getByRole('button', { name: '1 parked' }).click();
    await expect(dialog).toContainText('until the scale works');
    await dialog.getByRole('button', { name: 'Close' }).click();
    // What is parked is not on the plan: nothing of it can be selected.
    await rest(page).click();
    await page.getByRole('menuitem', { name: 'By name, piece, size…' }).click();
    await sheet.getByLabel('Name').fill('cart');
    await expect(sheet.getByText('0 found')).toBeVisible();
    await sheet.getByRole('button', { name: 'Back' }).click();
    await expect(page.getByText(new RegExp(`of ${all}$`))).toBeVisible();
    for (let i = 0; i < 3; i++) await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.locator('sv-group-tree')).toContainText('No groups yet');
    await saved(page);
  });

  test('arranges, copies in a row, hollows and cuts by numbers; what cannot be is refused in the dialog', async ({
    quietPage: page,
    stravel,
  }) => {
    await introduce(page, stravel.address, '/layout/salt-road');
    const plate = new PlatePage(page);
    await newStratum(page);
    await page.keyboard.press('b');
    await plate.drag(0.3, 0.1, 0.5, 0.2);
    await expect(page.getByRole('heading', { name: 'Block “box”' })).toBeVisible();
    const dialog = page.getByRole('dialog');
    const choose = async (of: string, command: RegExp): Promise<void> => {
      await menu(page, of).click();
      await page.getByRole('menuitem', { name: command }).click();
    };
    const place = page.getByLabel('Position X', { exact: true });
    const before = Number(await place.inputValue());
    await choose('Arrange', /^Move by/);
    await fill(page, 'By X, m', '(1+2)*2');
    await dialog.getByRole('button', { name: 'Move' }).click();
    await expect(place).toHaveValue(String(before + 6));
    await choose('Arrange', /^Repeat/);
    await fill(page, 'Count', '4');
    await dialog.getByRole('button', { name: 'Make copies' }).click();
    await expect(page.getByText(/^4 selected of/)).toBeVisible();
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(item(page, 'box')).toHaveCount(1);

    await item(page, 'box').click();
    await choose('Block', /^Turn into walls/);
    await fill(page, 'Thickness, m', '50');
    await dialog.getByRole('button', { name: 'Make walls' }).click();
    await expect(dialog.getByRole('alert')).toContainText('leaves no space inside');
    await fill(page, 'Thickness, m', '0.2');
    await dialog.getByRole('button', { name: 'Make walls' }).click();
    await expect(dialog).toHaveCount(0);
    await expect(page.locator('sv-strata-stack')).toContainText('6 blocks');
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(item(page, /^box -?\d/)).toHaveCount(1);
    await item(page, /^box -?\d/).click();
    await choose('Block', /^Cut/);
    await dialog.getByRole('button', { name: 'Cut' }).click();
    await expect(page.locator('sv-strata-stack')).toContainText('2 blocks');
    await rest(page).click();
    await page.getByRole('menuitem', { name: 'Invert selection' }).click();
    await saved(page);
    for (let i = 0; i < 4; i++) await page.getByRole('button', { name: 'Undo' }).click();
    await saved(page);
  });

  test('mirrors a piece on its card, and several about a plane, or their places alone', async ({
    quietPage: page,
    stravel,
  }) => {
    await introduce(page, stravel.address, '/layout/furnace-one');
    await stratum(page, 'Dressing').click();
    const first = page.locator('sv-item-list').getByRole('option').first();
    await first.click();
    const mirrored = page.getByLabel('mirrored left to right');
    const size = page.getByLabel('Size X', { exact: true });
    const before = await size.inputValue();
    await mirrored.check();
    await saved(page);
    await page.reload();
    await stratum(page, 'Dressing').click();
    await first.click();
    await expect(mirrored).toBeChecked();
    await expect(size).toHaveValue(before);
    const dialog = page.getByRole('dialog');
    const mirror = async (pieces: 'image' | 'place'): Promise<void> => {
      await menu(page, 'Arrange').click();
      await page.getByRole('menuitem', { name: /^Mirror/ }).click();
      await dialog.getByLabel('Pieces').selectOption(pieces);
      await dialog.getByRole('button', { name: 'Mirror' }).click();
      await expect(dialog).toHaveCount(0);
    };
    await mirror('place');
    await expect(mirrored).toBeChecked();
    await mirror('image');
    await expect(mirrored).not.toBeChecked();
    for (let i = 0; i < 3; i++) await page.getByRole('button', { name: 'Undo' }).click();
    await expect(mirrored).not.toBeChecked();
    await saved(page);
  });

  test('draws volumes of a kind with their own values, paths with equal knots, and links', async ({
    quietPage: page,
    stravel,
  }) => {
    await stravel.empty('signal-mast');
    await introduce(page, stravel.address, '/layout/signal-mast');
    const plate = new PlatePage(page);
    await newStratum(page);
    await page.keyboard.press('v');
    await page.getByLabel('Kind of new volumes').selectOption({ label: 'Furnace song' });
    await plate.drag(0.2, 0.2, 0.4, 0.4);
    await expect(page.getByRole('heading', { name: 'Volume “Furnace song”' })).toBeVisible();
    const loudness = page.getByRole('textbox', { name: 'Loudness, %', exact: true });
    await expect(loudness).toHaveValue('80');
    await loudness.fill('180');
    await loudness.press('Tab');
    await expect(page.getByRole('alert')).toContainText('180 is above 100');
    await loudness.fill('55');
    await loudness.press('Tab');
    await expect(page.getByRole('button', { name: 'Loudness, % from its kind' })).toBeVisible();

    await page.getByRole('button', { name: 'path', exact: true }).click();
    for (const x of [0.5, 0.7, 0.85]) await plate.click(x, 0.6);
    await page.keyboard.press('Enter');
    await expect(page.getByRole('heading', { name: 'Open straight path' })).toBeVisible();
    await page.keyboard.press('s');
    await menu(page, 'Path').click();
    await page.getByRole('menuitem', { name: /equal spacing/ }).click();
    await fill(page, 'Max count of knots', '3');
    await page.getByRole('dialog').getByRole('button', { name: 'Place knots' }).click();
    await expect(page.getByRole('alert').filter({ hasText: 'the limit is 3' })).toBeVisible();
    await fill(page, 'Max count of knots', '400');
    await page.getByRole('dialog').getByRole('button', { name: 'Place knots' }).click();
    await expect(page.getByText(/^\d\d+ knots$/)).toBeVisible();

    await item(page, /Furnace song/).click();
    const link = page.getByRole('listitem', { name: 'Link 1' });
    await page.getByRole('group', { name: 'Links' }).getByRole('button', { name: 'Add link' }).click();
    await expect(link).toContainText('Not saved yet');
    await link.getByLabel('Action').fill('start');
    await link.getByLabel('Action').press('Tab');
    await link.getByRole('button', { name: 'Point at the target' }).click();
    await expect(link).toContainText('Click the target on the plan');
    await page.keyboard.press('Escape');
    await expect(link).toContainText('Not saved yet');
    await link.getByLabel('Target', { exact: true }).selectOption({ index: 1 });
    await expect(link.getByText('Not saved yet')).toHaveCount(0);
    await saved(page);
    await page.reload();
    await item(page, /Furnace song/).click();
    await expect(page.getByRole('textbox', { name: 'Loudness, %', exact: true })).toHaveValue('55');
    await expect(link.getByLabel('Action')).toHaveValue('start');
  });

  test('reads tile floors from a spreadsheet, solves them, and says when they changed since', async ({
    quietPage: page,
    stravel,
  }) => {
    await introduce(page, stravel.address, '/layout/batch-floor');
    await stratum(page, 'Floors').click();
    await item(page, /Loft/).click();
    await page.getByRole('button', { name: 'Can the goal be reached?' }).click();
    await expect(page.getByText('The goal can be reached in 37 steps, the fewest there are.')).toBeVisible();
    await page.getByRole('button', { name: 'As text…' }).click();
    const dialog = page.getByRole('dialog');
    const text = await dialog.getByLabel('Squares', { exact: true }).inputValue();
    await dialog.getByLabel('Squares', { exact: true }).fill(text.replace('l@up', 'dragon'));
    await expect(dialog).toContainText('Row 5, column 3: “dragon” is not in the legend');
    await dialog.getByRole('button', { name: /^Apply/ }).click();
    await expect(page.getByText('The floors have changed since.')).toBeVisible();
    await page.getByRole('button', { name: 'Undo' }).click();
    // Without its start nothing can be solved, and it says so.
    await page.getByRole('button', { name: 'As text…' }).click();
    await dialog.getByLabel('Squares', { exact: true }).fill(text.replace('s', 'p'));
    // A dialog that is still opening does not take a click to close.
    await expect(page.locator('.mdc-dialog--opening')).toHaveCount(0);
    await dialog.getByRole('button', { name: 'Apply text', exact: true }).click();
    await page.getByRole('button', { name: 'Can the goal be reached?' }).click();
    await expect(page.getByText('There must be one start; there is none.')).toBeVisible();
    await page.getByRole('button', { name: 'Undo' }).click();
    await saved(page);
  });

  test('shows other levels faintly, finds what fills the same space, and has no accessibility fault', async ({
    quietPage: page,
    stravel,
  }) => {
    await introduce(page, stravel.address, '/layout/sorting-hall');
    await page.getByRole('button', { name: 'Shown' }).click();
    await page.getByRole('button', { name: 'Show other levels…' }).click();
    const dialog = page.getByRole('dialog');
    await dialog.getByLabel('Cullet Yard').check();
    await dialog.getByRole('button', { name: 'Show 1' }).click();
    await page.getByRole('button', { name: 'Checks' }).click();
    await page.getByRole('menuitem', { name: 'Overlaps and duplicates' }).click();
    const overlaps = page.locator('sv-overlaps-sheet');
    await expect(overlaps.getByRole('row', { name: /of Sorting Hall .*of Cullet Yard/ }).first()).toBeVisible({
      timeout: 30000,
    });
    await overlaps.getByRole('button', { name: 'Back' }).click();
    await page.getByRole('button', { name: 'Shown' }).click();
    await page.getByRole('button', { name: 'Density…' }).click();
    const density = page.locator('sv-overview-sheet');
    await density.getByRole('checkbox', { name: /^placement/ }).check();
    await density.getByRole('button', { name: /^Show \d+/ }).click();
    await expect(page.getByRole('list', { name: 'Outliers' })).toContainText(/empty|crowded/);
    await page.getByRole('button', { name: 'Change…' }).click();
    await density.getByRole('checkbox', { name: /^placement/ }).uncheck();
    await density.getByRole('button', { name: 'Turn off' }).click();
    await expect(page.getByRole('list', { name: 'Outliers' })).toHaveCount(0);
    await stratum(page, 'Stage').click();
    await item(page, /Bell pull/).click();
    await expect(page.getByRole('listitem', { name: 'Link 1' }).getByLabel('Action')).toHaveValue('open');
    for (const theme of ['light', 'dark']) {
      await page.evaluate((name) => (document.documentElement.dataset['theme'] = name), theme);
      const { violations } = await new AxeBuilder({ page })
        .withTags(['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'])
        .analyze();
      expect(violations.map(({ id, nodes }) => `${id}: ${nodes[0].html}`)).toEqual([]);
    }
  });
});
