import { existsSync } from 'node:fs';
import { join } from 'node:path';
import type { Page } from '@playwright/test';
import { domeLines } from '../fixtures/dome';
import { expect, test } from '../fixtures/stravel';
import { PlatePage } from '../pages/plate';
import { takePiece } from '../pages/strata';

/** As many things may have to be done from an empty folder to a pack. */
const MOST_ACTIONS = 60;

/** Counts what a person does. */
class Hand {
  count = 0;
  constructor(readonly page: Page) {}

  async does(action: Promise<unknown>): Promise<void> {
    this.count += 1;
    await action;
  }

  click(name: string | RegExp, role: 'button' | 'link' | 'menuitem' = 'button'): Promise<void> {
    return this.does(this.page.getByRole(role, { name }).click());
  }

  key(key: string): Promise<void> {
    return this.does(this.page.keyboard.press(key));
  }
}

test('from nothing to a pack: three levels, a room with spawn and exit, a piece with LODs, bakes and budget', async ({
  quietPage: page,
  stravel,
}) => {
  test.setTimeout(240000);
  const hand = new Hand(page);
  const plate = new PlatePage(page);
  await page.goto(stravel.address);
  await hand.click('New collection…');
  await hand.does(page.getByLabel('Name', { exact: true }).fill('Harbour'));
  await hand.click('Create collection');

  // The first level is there; two more.
  await hand.does(page.getByRole('gridcell', { name: 'New level', exact: true }).dblclick());
  await hand.does(page.getByLabel('Level of New level').fill('Quay'));
  await hand.key('Enter');
  await hand.does(page.getByRole('dialog').getByLabel('Name', { exact: true }).fill('Ines'));
  await hand.click('Continue');
  for (const name of ['Mole', 'Slip']) {
    await hand.does(page.getByRole('button', { name: 'New level', exact: true }).click());
    await hand.does(page.getByRole('gridcell', { name: 'New level', exact: true }).dblclick());
    await hand.does(page.getByLabel('Level of New level').fill(name));
    await hand.key('Enter');
    await expect(page.getByRole('gridcell', { name, exact: true })).toBeVisible();
  }

  // A piece with LODs.
  await hand.click('Detail', 'link');
  const file = { name: 'dome.obj', mimeType: 'text/plain', buffer: Buffer.from(domeLines(2).join('\n')) };
  await hand.does(page.locator('input[type=file][multiple]').setInputFiles([file]));
  await hand.does(page.getByLabel('Name of the new kit').fill('Clay'));
  await hand.click('Import 1 piece');
  await hand.click(/^Build for dome/);
  await expect(page.getByText(/^LODs of 1 piece built/)).toBeVisible({ timeout: 30000 });

  // A closed room, where one begins, where one leaves it, and what stands in it.
  await hand.click('Sets', 'link');
  await hand.does(page.getByRole('gridcell', { name: 'Quay', exact: true }).click());
  await hand.click('Layout', 'link');
  await expect(page.getByText('This level is empty')).toBeVisible();
  await hand.key('w');
  for (const [x, y] of [
    [0.3, 0.3],
    [0.7, 0.3],
    [0.7, 0.7],
    [0.3, 0.7],
    [0.3, 0.3],
  ])
    await hand.does(plate.click(x, y));
  await expect(page.getByRole('heading', { name: 'Wall “room”' })).toBeVisible();
  await hand.key('m');
  await hand.does(plate.click(0.4, 0.4));
  await hand.does(page.getByLabel('Kind of marker').selectOption('exit'));
  await hand.does(plate.click(0.6, 0.6));
  await hand.does(takePiece(page, /dome/));
  await hand.does(plate.click(0.5, 0.5));
  await expect(page.getByText(/1 selected of 4/)).toBeVisible();

  await hand.click('Bake sight');
  await expect(page.getByText('sight fresh')).toBeVisible({ timeout: 60000 });
  await hand.click('Budget', 'link');
  await expect(page.getByRole('row').filter({ hasText: 'Quay' })).toContainText('fresh', { timeout: 60000 });
  await expect(page.getByRole('button', { name: /^Over 0/ })).toBeVisible();

  await hand.click('Pack', 'link');
  await expect(page.getByText('Ready to pack.')).toBeVisible({ timeout: 30000 });
  await hand.click(/^Pack P/);
  await expect(page.getByRole('region', { name: 'Last pack' })).toBeVisible({ timeout: 60000 });
  expect(existsSync(join(stravel.dataFolder, 'packs'))).toBe(true);
  expect(hand.count).toBeLessThan(MOST_ACTIONS);
});
