import { expect, introduce, test } from '../fixtures/stravel';
import { PlatePage } from '../pages/plate';
import { newStratum } from '../pages/strata';

test.describe('Layout tools', () => {
  test('draw a wedge and a prism, refuse an outline that turns back, set markers', async ({
    quietPage: page,
    stravel,
  }) => {
    await introduce(page, stravel.address, '/layout/lamp-test');
    const plate = new PlatePage(page);
    await newStratum(page);
    await page.keyboard.press('b');
    await page.keyboard.press('b');
    await plate.drag(0.2, 0.2, 0.4, 0.4);
    await expect(page.getByRole('heading', { name: 'Block “wedge”' })).toBeVisible();
    await expect(page.getByText('5 planes')).toBeVisible();

    await page.getByLabel('Form of new blocks').selectOption('prism');
    for (const [x, y] of [
      [0.55, 0.2],
      [0.8, 0.2],
      [0.8, 0.45],
      [0.55, 0.45],
    ])
      await plate.click(x, y);
    await page.keyboard.press('Enter');
    await expect(page.getByRole('heading', { name: 'Block “prism”' })).toBeVisible();

    for (const [x, y] of [
      [0.2, 0.6],
      [0.4, 0.6],
      [0.25, 0.65],
      [0.2, 0.85],
    ])
      await plate.click(x, y);
    await page.keyboard.press('Enter');
    await expect(page.getByText(/the outline must turn one way/)).toBeVisible();
    await page.keyboard.press('Escape');

    await page.keyboard.press('m');
    await plate.drag(0.6, 0.7, 0.7, 0.7);
    await expect(page.getByRole('heading', { name: 'Marker · spawn' })).toBeVisible();
    await expect(page.getByLabel('Direction in degrees')).toHaveValue('-90');
    await page.keyboard.press('Escape');
    await expect(page.getByText('All changes saved')).toBeVisible();
    await page.reload();
    await expect(page.getByText('of 3')).toBeVisible();
  });

  test('stretch by a grip, move by a drag, turn by the knob, and take it all back', async ({
    quietPage: page,
    stravel,
  }) => {
    await introduce(page, stravel.address, '/layout/lift-test');
    const plate = new PlatePage(page);
    await newStratum(page);
    await page.keyboard.press('b');
    await plate.drag(0.3, 0.3, 0.6, 0.6);
    await page.keyboard.press('s');
    const number = (label: string) => page.getByLabel(label, { exact: true });
    const width = Number(await number('Size X').inputValue());
    const place = Number(await number('Position X').inputValue());

    // The grip in the middle of the right side, pulled outward: the left side stays.
    await plate.drag(0.6, 0.45, 0.7, 0.45);
    await expect(number('Size X')).not.toHaveValue(String(width));
    const wider = Number(await number('Size X').inputValue());
    expect(wider).toBeGreaterThan(width);
    expect(Number(await number('Position X').inputValue()) - wider / 2).toBeCloseTo(place - width / 2, 5);

    const middle = Number(await number('Position X').inputValue());
    await plate.drag(0.45, 0.4, 0.5, 0.4);
    await expect(number('Position X')).not.toHaveValue(String(middle));
    await expect(number('Size X')).toHaveValue(String(wider));

    await page.keyboard.press('q');
    await expect(number('Rotation yaw')).toHaveValue('15');
    for (const label of ['Rotation yaw', 'Position X', 'Size X']) {
      const now = await number(label).inputValue();
      await page.keyboard.press('Control+z');
      await expect(number(label)).not.toHaveValue(now);
    }
    await expect(number('Size X')).toHaveValue(String(width));
    await expect(page.getByText('All changes saved')).toBeVisible();
  });

  test('picks in the model, steps by storey and shows one view alone', async ({ quietPage: page, stravel }) => {
    await introduce(page, stravel.address, '/layout/gaffers-stair');
    await expect(page.getByText('of 90')).toBeVisible();
    const model = page.getByRole('img', { name: 'Model of the level' });
    const box = await model.boundingBox();
    if (!box) throw new Error('the model is not shown');
    await page.mouse.click(box.x + box.width / 2, box.y + box.height / 2);
    await expect(page.getByText(/^1 selected of 90/)).toBeVisible();
    await page.keyboard.press('.');
    await expect(page.getByText('2.5 to 5.5 m')).toBeVisible();
    await page.keyboard.press(',');
    await page.getByRole('button', { name: 'Model', exact: true }).click();
    await expect(page.getByRole('application')).toHaveCount(0);
    await page.getByRole('button', { name: 'Both', exact: true }).click();
    await expect(page.getByRole('application')).toBeVisible();
  });

  test('close a room, put in a door and a window, move them, and turn the wall into blocks', async ({
    quietPage: page,
    stravel,
  }) => {
    await introduce(page, stravel.address, '/layout/swim-test');
    const plate = new PlatePage(page);
    await newStratum(page);
    await page.keyboard.press('w');
    for (const [x, y] of [
      [0.2, 0.2],
      [0.7, 0.2],
      [0.7, 0.7],
      [0.2, 0.7],
      [0.2, 0.2],
    ])
      await plate.click(x, y);
    await expect(page.getByRole('heading', { name: 'Wall “room”' })).toBeVisible();
    await expect(page.getByText('6 blocks')).toBeVisible();

    await page.keyboard.press('w');
    await plate.click(0.45, 0.2);
    await expect(page.getByRole('group', { name: 'Door 1' })).toBeVisible();
    await expect(page.getByText('9 blocks')).toBeVisible();
    await page.keyboard.press('w');
    await plate.click(0.7, 0.45);
    await expect(page.getByRole('group', { name: 'Window 2' })).toBeVisible();

    await page.keyboard.press('s');
    const offset = page.getByLabel('Offset of door 1, metres');
    const before = Number(await offset.inputValue());
    await plate.drag(0.45, 0.2, 0.55, 0.2);
    await expect(offset).not.toHaveValue(String(before));
    expect(Number(await offset.inputValue())).toBeGreaterThan(before);
    const corner = page.getByLabel('Corner 3 X', { exact: true });
    const right = Number(await corner.inputValue());
    await plate.drag(0.7, 0.7, 0.8, 0.8);
    await expect(corner).not.toHaveValue(String(right));

    await page.getByLabel('Width of door 1, metres').fill('99');
    await page.getByLabel('Width of door 1, metres').press('Enter');
    await expect(page.getByText('It reaches beyond its segment or above the wall')).toBeVisible();
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByText('All changes saved')).toBeVisible();
    await page.reload();
    await page.locator('sv-item-list').getByRole('option', { name: 'room' }).click();
    await expect(page.getByRole('group', { name: 'Window 2' })).toBeVisible();
    await page.getByRole('button', { name: 'Wall ▾' }).click();
    await page.getByRole('menuitem', { name: 'Turn into blocks' }).click();
    await expect(page.getByText(/1[0-9] selected of 1[0-9]/)).toBeVisible();
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByText('of 1', { exact: false }).first()).toBeVisible();
  });

  test('draw a room by keys alone, with lengths typed', async ({ quietPage: page, stravel }) => {
    await introduce(page, stravel.address, '/layout/lift-test');
    const plate = new PlatePage(page);
    await plate.at(0.5, 0.5);
    await newStratum(page);
    await expect(page.getByRole('menu')).toHaveCount(0);
    await page.keyboard.press('w');
    // Nothing is heard while the menu is on its way out.
    await expect(async () => {
      await plate.plan.focus();
      await page.keyboard.press('Enter');
      await expect(plate.plan).toHaveAccessibleName(/cursor at/, { timeout: 1000 });
    }).toPass();
    await page.keyboard.press('Enter');
    for (const [arrow, length] of [
      ['ArrowRight', '6'],
      ['ArrowDown', '4'],
      ['ArrowLeft', '6'],
      ['ArrowUp', '4'],
    ]) {
      await page.keyboard.press(arrow);
      await page.keyboard.type(length);
      await page.keyboard.press('Enter');
    }
    await expect(page.getByRole('heading', { name: 'Wall “room”' })).toBeVisible();
    await expect(page.locator('sv-wall-card').getByText('20.00')).toBeVisible();
    await expect(page.getByText('6 blocks')).toBeVisible();
  });

  test('carry a piece from the kit strip to the plan and to the model', async ({ quietPage: page, stravel }) => {
    await stravel.empty('tidal-gate');
    await introduce(page, stravel.address, '/layout/tidal-gate');
    const plate = new PlatePage(page);
    await newStratum(page);
    await page.keyboard.press('b');
    await plate.drag(0.3, 0.3, 0.6, 0.6);
    await expect(page.getByText('1 selected of 1')).toBeVisible();
    await page.getByRole('button', { name: 'Both', exact: true }).click();
    await page.keyboard.press('f');
    const card = page.getByRole('group', { name: 'Last used pieces' }).getByRole('button').first();
    await card.dragTo(plate.plan, { targetPosition: { x: 120, y: 120 } });
    await expect(page.getByText('1 selected of 2')).toBeVisible();
    await card.dragTo(page.getByRole('img', { name: 'Model of the level' }), { targetPosition: { x: 140, y: 110 } });
    await expect(page.getByText('1 selected of 3')).toBeVisible();
    // What is carried is placed once: the pointer selects again.
    await expect(page.getByRole('button', { name: 'select', exact: true })).toHaveAttribute('aria-pressed', 'true');
  });
});
