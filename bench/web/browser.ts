import { chromium, type Browser, type Page } from '@playwright/test';

/** Debian's Chromium, drawing in software, the same for every benchmark. */
export function launchBrowser(): Promise<Browser> {
  return chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: [
      '--no-sandbox',
      '--use-angle=swiftshader',
      '--enable-unsafe-swiftshader',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
    ],
  });
}

/** Gives a name, so that the first change asks for none. */
export async function giveName(page: Page, name: string): Promise<void> {
  await page.getByRole('button', { name: 'You: no name yet' }).click();
  await page.getByRole('menuitem', { name: 'Your name…' }).click();
  await page.getByLabel('Name', { exact: true }).fill(name);
  await page.getByRole('button', { name: 'Continue' }).click();
}
