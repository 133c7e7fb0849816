import type { Page } from '@playwright/test';

/** Opens what the shown view is made of: filter, sort and columns. */
export async function openView(page: Page, name = 'Saved views'): Promise<void> {
  await page.getByRole('button', { name, exact: true }).click();
  await page.getByRole('menuitem', { name: 'Filter, sort and columns…' }).click();
}

/** Closes it again. @param name what the button of the views says now */
export async function closeView(page: Page, name: string): Promise<void> {
  await page.getByRole('button', { name, exact: true }).click();
  await page.getByRole('menuitem', { name: 'Close filter, sort and columns' }).click();
}
