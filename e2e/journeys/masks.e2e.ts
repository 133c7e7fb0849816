import AxeBuilder from '@axe-core/playwright';
import { encode } from 'fast-png';
import { deleteStratum, newStratum } from '../pages/strata';
import { expect, introduce, test } from '../fixtures/stravel';
import { PlatePage } from '../pages/plate';

/** Two rooms of 40 by 40 pixels with a door of 6 between them. */
function twoRooms(): Buffer {
  const [width, height] = [90, 44];
  const isOpen = (x: number, z: number): boolean =>
    z >= 2 && z < 42 && ((x >= 2 && x < 42) || (x >= 48 && x < 88) || (x >= 42 && x < 48 && z >= 19 && z < 25));
  const data = Uint8Array.from({ length: width * height }, (_unused, i) =>
    isOpen(i % width, Math.floor(i / width)) ? 255 : 0,
  );
  return Buffer.from(encode({ width, height, channels: 1, data }));
}

test.describe('Masks', () => {
  test('take a picture, refuse one that claims too much, and find regions, narrow places and ways', async ({
    quietPage: page,
    stravel,
  }) => {
    await stravel.empty('cooling-vault');
    await introduce(page, stravel.address, '/layout/cooling-vault');
    await newStratum(page);
    await page.getByRole('button', { name: 'mask', exact: true }).click();
    await page.getByRole('button', { name: 'From a picture…' }).click();
    await expect(page.locator('[role=dialog] :focus')).toHaveCount(1);
    const dialog = page.getByRole('dialog');
    const good = twoRooms();
    const huge = Buffer.from(good);
    huge.writeUInt32BE(100000, 16);
    huge.writeUInt32BE(100000, 20);
    const picture = dialog.getByLabel('Picture', { exact: true });
    await picture.setInputFiles({ name: 'huge.png', mimeType: 'image/png', buffer: huge });
    await expect(dialog.getByRole('alert')).toContainText('100000 by 100000');
    await expect(dialog.getByRole('button', { name: 'Use picture' })).toBeDisabled();
    await picture.setInputFiles({ name: 'rooms.png', mimeType: 'image/png', buffer: good });
    await expect(dialog.getByRole('status')).toContainText('90 by 44 pixels, 11.3 by 5.5 m');
    const axe = await new AxeBuilder({ page }).include('[role=dialog]').analyze();
    expect(axe.violations).toEqual([]);
    await dialog.getByRole('button', { name: 'Use picture' }).click();

    const card = page.locator('sv-mask-card');
    await expect(card).toContainText('90 by 44 px');
    await expect(card.getByLabel('Name of the mask')).toHaveValue('rooms');
    await card.getByRole('button', { name: 'Check passages' }).click();
    await expect(card).toContainText('50.6 m² open in 1 region');
    await expect(card).toContainText('1 narrow place');
    await expect(card.getByRole('button', { name: /^0\.75 m/ })).toBeVisible();

    // A wall painted across the door parts the rooms; undone, they are one again, also after a reload.
    await page.keyboard.press('f');
    await page.getByLabel('What the brush paints').selectOption('solid');
    await page.getByLabel('Width of the brush, metres').fill('1');
    await page.getByLabel('Width of the brush, metres').press('Enter');
    await new PlatePage(page).drag(0.5, 0.1, 0.5, 0.9);
    await expect(card).toContainText('The mask has changed since');
    await card.getByRole('button', { name: 'Check passages' }).click();
    await expect(card).toContainText('in 2 regions');
    await expect(page.getByText('All changes saved')).toBeVisible();
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(card).toContainText('The mask has changed since');
    await page.reload();
    await page.locator('sv-item-list').getByRole('option', { name: /rooms/ }).click();
    await card.getByRole('button', { name: 'Check passages' }).click();
    await expect(card).toContainText('50.6 m² open in 1 region');
    await deleteStratum(page, 'Structure');
  });

  test('show the way through the mould room, and put its map on the level’s card', async ({
    quietPage: page,
    stravel,
  }) => {
    await introduce(page, stravel.address, '/layout/mould-room');
    await page
      .locator('sv-strata-stack')
      .getByRole('button', { name: /^Picture/ })
      .click();
    await page
      .locator('sv-item-list')
      .getByRole('option', { name: /Mould room floor/ })
      .click();
    const card = page.locator('sv-mask-card');
    await card.getByRole('button', { name: 'Check passages' }).click();
    await expect(card).toContainText(/exit at 26\.0, -12\.0: 8\d\.\d m/);
    await expect(card).toContainText('in 2 regions');
    await card.getByLabel('Width of the player, metres').fill('1.6');
    await card.getByLabel('Width of the player, metres').press('Enter');
    await card.getByRole('button', { name: 'Check passages' }).click();
    await expect(card).toContainText('No route is wide enough for the player');
    await card.getByRole('button', { name: /Use as level picture/ }).click();
    await expect(page.getByText('All changes saved')).toBeVisible();
    await expect(page.getByRole('button', { name: 'Undo' })).toHaveAttribute('title', /map of Mould Room/);
    const undo = page.getByRole('button', { name: 'Undo' });
    await undo.click();
    await expect(undo).not.toHaveAttribute('title', /map of Mould Room/);
  });
});
