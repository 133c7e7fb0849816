import type { Page } from '@playwright/test';

/** A view of the demo collection: where it is, and what is done there before it is looked at. */
export interface View {
  readonly name: string;
  readonly path: string;
  readonly act?: (page: Page) => Promise<void>;
}

const button = (page: Page, name: string): ReturnType<Page['getByRole']> =>
  page.getByRole('button', { name, exact: true });

/** Chooses a tool of the Layout desk. */
const tool =
  (name: string) =>
  (page: Page): Promise<void> =>
    page.getByRole('toolbar', { name: 'Layout tools' }).getByRole('button', { name, exact: true }).click();

/** Selects a thing of the stratum that one stands on by its place in the list, and opens a menu of the selection. */
const selected =
  (nth: number, menu?: string) =>
  async (page: Page): Promise<void> => {
    await page.locator('sv-item-list [role=option]').nth(nth).click();
    if (menu !== undefined) await button(page, menu).click();
  };

/** The main views, in the order of the work. */
export const VIEWS: readonly View[] = [
  { name: 'start', path: '/' },
  { name: 'sets', path: '/c/cinderbrine/sets' },
  { name: 'order', path: '/c/cinderbrine/sets/order' },
  { name: 'whole', path: '/c/cinderbrine/sets/whole' },
  { name: 'layout', path: '/c/cinderbrine/layout/sorting-hall' },
  { name: 'layout-card', path: '/c/cinderbrine/layout/sorting-hall', act: selected(0) },
  { name: 'layout-arrange', path: '/c/cinderbrine/layout/sorting-hall', act: selected(1, 'Arrange ▾') },
  { name: 'layout-assembly', path: '/c/cinderbrine/layout/sorting-hall', act: selected(1, 'Assembly ▾') },
  ...['block', 'piece', 'marker', 'volume', 'path', 'tiles', 'mask', 'region'].map((name) => ({
    name: `layout-tool-${name}`,
    path: '/c/cinderbrine/layout/sorting-hall',
    act: tool(name),
  })),
  { name: 'tiles', path: '/c/cinderbrine/layout/mould-room', act: selected(0) },
  { name: 'sections', path: '/c/cinderbrine/sections/potash-grotto' },
  { name: 'cells', path: '/c/cinderbrine/cells/low-water' },
  { name: 'detail', path: '/c/cinderbrine/detail' },
  { name: 'sight', path: '/c/cinderbrine/sight/sorting-hall' },
  { name: 'budget', path: '/c/cinderbrine/budget' },
  { name: 'pack', path: '/c/cinderbrine/pack' },
  { name: 'findings', path: '/c/cinderbrine/findings' },
  { name: 'devices', path: '/c/cinderbrine/devices' },
];
