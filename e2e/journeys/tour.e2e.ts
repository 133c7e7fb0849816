import { checkAxe } from '../fixtures/check-axe';
import { expect, introduce, test } from '../fixtures/stravel';

test('The tour leads to a fault, shows that it is fixed, and is left and taken up again', async ({ page, stravel }) => {
  await introduce(page, stravel.address);
  const bar = page.getByRole('region', { name: 'Tour' });
  await expect(bar).toContainText('5 faults are hidden in this demo.');
  await bar.getByRole('button', { name: 'Show me the first' }).click();
  await expect(page).toHaveURL(/sets\?at=ash-gallery/);
  await expect(bar).toContainText('1 of 6');
  await expect(bar).toContainText('Now: Ash Gallery has the code');
  await checkAxe(page);

  await page.getByRole('link', { name: /^\d+ findings$/ }).click();
  await page.getByRole('button', { name: 'Give it a new code' }).click();
  await expect(bar).toContainText('✓ fixed');
  await bar.getByRole('button', { name: 'Next' }).click();
  await expect(page).toHaveURL(/sets\/order\?level=wreck-reach/);
  await expect(bar).toContainText('Now: Wreck Reach can never unlock');

  await bar.getByRole('button', { name: 'Leave tour' }).click();
  await expect(bar).toHaveCount(0);
  await page.goto(`${stravel.address}/c/cinderbrine/budget`);
  await page.getByRole('button', { name: 'Tour of faults' }).click();
  await expect(bar).toContainText('2 of 6');
  await bar.getByRole('button', { name: 'Back' }).click();
  // What it was like before is still told.
  await expect(bar).toContainText('Before: Ash Gallery has the code');
});
