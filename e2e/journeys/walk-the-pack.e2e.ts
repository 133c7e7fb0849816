import type { Operation } from '@stravel/core';
import { checkAxe } from '../fixtures/check-axe';
import { expect, introduce, test } from '../fixtures/stravel';

test.describe('Walk the pack', () => {
  test('packs, walks a rehearsal beside its forecast, switches savings off, and steers', async ({
    quietPage: page,
    stravel,
  }) => {
    test.setTimeout(240000);
    await introduce(page, stravel.address, '/pack');
    await page.getByRole('button', { name: /^Walk the pack/ }).click();
    await expect(page).toHaveURL(/\/pack\/walk/);
    const level = page.getByRole('combobox', { name: 'Level', exact: true });
    await level.selectOption('low-water');
    await expect(page).toHaveURL(/\/pack\/walk\/low-water$/);
    await expect(page.getByRole('heading', { name: 'Low Water is not in a pack yet' })).toBeVisible();
    await page.getByRole('button', { name: 'Pack and walk' }).click();

    // The rehearsal of the level is walked, and the pack does what was forecast.
    const side = page.getByRole('region', { name: 'Walk the pack' });
    await expect(side.getByText('The pack does what was forecast.')).toBeVisible({ timeout: 120000 });
    await expect(side).toContainText(/(\d+) of \1 places agree within 3 %; at \1 the same objects/);
    await expect(page.getByRole('combobox', { name: 'Way' }).locator('option:checked')).toHaveText('Run to the exit');
    await expect(page.getByText(/Pack is fresh, \d+ files/)).toBeVisible();
    await expect(page.getByRole('img', { name: 'Late cells: 1 measured, 1 forecast' })).toBeVisible();
    await checkAxe(page);

    // The playhead by keys; what is in memory follows.
    const playhead = page.getByRole('slider', { name: 'Moment of the walk' });
    await playhead.focus();
    for (let i = 0; i < 8; i++) await page.keyboard.press('ArrowRight');
    await expect(playhead).not.toHaveAttribute('aria-valuenow', '0.0');
    await expect(page.getByRole('img', { name: /^Plan of cells: \d+ in memory/ })).toBeVisible();

    // Without cells all of it is there: nothing is late.
    await side.getByRole('checkbox', { name: 'Cells' }).uncheck();
    await expect(side.getByText('The thin line is the whole walk without cells: 0 late, 1 before.')).toBeVisible({
      timeout: 60000,
    });
    await side.getByRole('checkbox', { name: 'Cells' }).check();
    await expect(side.getByText(/The thin line/)).toHaveCount(0);
    await side.getByRole('checkbox', { name: 'Disk half as fast' }).check();
    await expect(side.getByText(/The thin line is the whole walk disk half as fast/)).toBeVisible({ timeout: 60000 });

    // A level that is not cut, straight to the exit, then steered.
    await level.selectOption('sorting-hall');
    await expect(page.getByRole('combobox', { name: 'Way' }).locator('option:checked')).toHaveText('Spawn to exit', {
      timeout: 60000,
    });
    await expect(side.getByText('The pack does what was forecast.')).toBeVisible({ timeout: 60000 });
    await page.getByRole('combobox', { name: 'Way' }).selectOption('Steer by keys');
    const compare = page.getByRole('button', { name: 'Compare this way with its forecast' });
    await expect(compare).toBeDisabled();
    await page.getByRole('group', { name: 'What is drawn' }).focus();
    await page.keyboard.down('ArrowUp');
    await expect(compare).toBeEnabled();
    await page.keyboard.up('ArrowUp');
    await compare.click();
    await expect(page.getByRole('combobox', { name: 'Way' }).locator('option:checked')).toHaveText('Steered way');
    await expect(side.getByText('The pack does what was forecast.')).toBeVisible({ timeout: 60000 });
  });

  test('says that the collection has newer edits, and which object differs', async ({ quietPage: page, stravel }) => {
    test.setTimeout(240000);
    await introduce(page, stravel.address, '/pack/walk/sorting-hall');
    const side = page.getByRole('region', { name: 'Walk the pack' });
    const isAsForecast = side.getByText('The pack does what was forecast.');
    const packNow = page.getByRole('button', { name: 'Pack and walk' });
    // It was packed before where the test above ran on this server.
    await expect(isAsForecast.or(packNow)).toBeVisible({ timeout: 60000 });
    if (await packNow.isVisible()) await packNow.click();
    await expect(isAsForecast).toBeVisible({ timeout: 120000 });
    const block = {
      id: 'walked-past',
      name: 'new plinth',
      position: [-15, 0.5, -11] as const,
      turn: [0, 0, 0] as const,
      planes: [
        [1, 0, 0, 0.5],
        [-1, 0, 0, 0.5],
        [0, 1, 0, 0.5],
        [0, -1, 0, 0.5],
        [0, 0, 1, 0.5],
        [0, 0, -1, 0.5],
      ] as const,
      sight: 'decor',
      material: 'brick',
    };
    const document = 'sorting-hall-structure';
    const add: Operation = { document, kind: 'block', id: block.id, field: null, before: null, after: block };
    expect(await stravel.edit([add])).toBe(201);
    await page.getByRole('button', { name: /^Walk again/ }).click();
    await expect(page.getByText(/Packed from edit \d+; 1 newer/)).toBeVisible({ timeout: 60000 });
    await expect(side.getByText('The pack is 1 edit older than the collection')).toBeVisible();
    const difference = side.getByRole('button', { name: /objects? not as forecast|Triangles/ }).first();
    await expect(difference).toContainText('is not drawn, forecast is');
    await difference.click();
    await expect(difference).toHaveClass(/chosen/);
    await page.getByRole('button', { name: /^Pack again/ }).click();
    await expect(side.getByText('The pack does what was forecast.')).toBeVisible({ timeout: 120000 });
  });
});
