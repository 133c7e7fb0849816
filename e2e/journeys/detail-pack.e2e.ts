import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Locator } from '@playwright/test';
import { checkAxe } from '../fixtures/check-axe';
import { domeLines } from '../fixtures/dome';
import { packedSlab } from '../fixtures/packed-slab';
import { DEMO, expect, introduce, test } from '../fixtures/stravel';

/** A dome as an OBJ, and one object that cannot be used. */
const dome = (): string =>
  ['mtllib dome.mtl', ...domeLines(3), 'o broken', 'v nowhere 0 0', 'v 1 0 0', 'v 0 1 0', 'f -3 -2 -1'].join('\n');
const files = (): { name: string; mimeType: string; buffer: Buffer }[] => [
  { name: 'dome.obj', mimeType: 'text/plain', buffer: Buffer.from(dome()) },
  { name: 'dome.mtl', mimeType: 'text/plain', buffer: Buffer.from('newmtl clay\nKd 0.6 0.3 0.2\nmap_Kd clay.png\n') },
  {
    name: 'claims.glb',
    mimeType: 'model/gltf-binary',
    buffer: Buffer.from([0x67, 0x6c, 0x54, 0x46, 2, 0, 0, 0, 0, 0, 0, 0x80, 0, 0, 0, 0, 0, 0, 0, 0]),
  },
  { name: 'empty.glb', mimeType: 'model/gltf-binary', buffer: Buffer.alloc(0) },
];

test.describe('Detail', () => {
  test('reads dropped files with a report, takes them into a kit, builds a chain, and undoes it', async ({
    quietPage: page,
    stravel,
  }) => {
    await introduce(page, stravel.address, '/detail');
    await page.getByLabel('Import files…').setInputFiles(files());
    await expect(page.getByRole('cell', { name: 'dome', exact: true })).toBeVisible();
    for (const fault of [
      'dome.obj, line 1206 “nowhere” is not a number',
      'material clay its picture clay.png is missing',
      'broken POSITION of vertex 0 is NaN',
      'claims.glb glb: claims 2147483648 bytes, has 20',
      'empty.glb is empty. Choose a GLB mesh, a glTF mesh or an OBJ mesh (.glb, .gltf, .obj).',
      'dome has no normals',
    ]) {
      await expect(page.getByRole('listitem').filter({ hasText: fault })).toBeVisible();
    }
    await page.getByLabel('into').selectOption({ label: 'a new kit' });
    await page.getByLabel('Name of the new kit').fill('Clay kit');
    await page.getByRole('button', { name: 'Import 1 piece' }).click();
    await expect(page.getByText('1 piece was imported into Clay kit.')).toBeVisible();
    await expect(page.getByRole('button', { name: 'Clay kit' })).toHaveAttribute('aria-pressed', 'true');
    await page.getByRole('button', { name: /^Build for dome/ }).click();
    await expect(page.getByText(/^LODs of 1 piece built/)).toBeVisible({ timeout: 20000 });
    const row = page.getByRole('row').filter({ has: page.getByRole('button', { name: 'dome', exact: true }) });
    await expect(row.getByRole('cell').nth(2)).toHaveText('5');
    await page.reload();
    await page.getByRole('button', { name: 'Clay kit' }).click();
    await expect(row.getByRole('cell').nth(2)).toHaveText('5');
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(row.getByRole('cell').nth(2)).toHaveText('none');
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByRole('button', { name: 'Clay kit' })).toHaveCount(0);
  });

  test('reads a mesh that is packed with Draco out of a zip', async ({ quietPage: page, stravel }) => {
    await introduce(page, stravel.address, '/detail');
    await page
      .getByLabel('Import files…')
      .setInputFiles({ name: 'yard.zip', mimeType: 'application/zip', buffer: await packedSlab() });
    const row = page.getByRole('row').filter({ has: page.getByRole('cell', { name: 'slab', exact: true }) });
    await expect(row).toContainText('2 × 0 × 1', { timeout: 20000 });
    await expect(page.getByRole('listitem').filter({ hasText: 'slab' })).toHaveCount(0);
    await page.getByRole('button', { name: 'Import 1 piece' }).click();
    await expect(page.getByText(/^1 piece was imported into/)).toBeVisible();
    await page.getByRole('button', { name: 'slab', exact: true }).click();
    await page.keyboard.press('F2');
    const dialog = page.getByRole('dialog');
    await dialog.getByLabel('Name').fill('paving: slab');
    await dialog.getByRole('button', { name: 'Rename' }).click();
    await expect(dialog.getByText(/letters from A to Z/)).toBeVisible();
    await dialog.getByLabel('Name').fill('paving slab');
    await dialog.getByRole('button', { name: 'Rename' }).click();
    await expect(page.getByText('slab is called paving slab now.')).toBeVisible();
    await page.reload();
    await expect(page.getByRole('button', { name: 'paving slab', exact: true })).toBeVisible();
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByRole('button', { name: 'slab', exact: true })).toBeVisible();
  });

  test('replaces a piece that has other origin and name, and deletes pieces with what uses them', async ({
    quietPage: page,
    stravel,
  }) => {
    await introduce(page, stravel.address, '/detail');
    const obj = (name: string, x: number): { name: string; mimeType: string; buffer: Buffer } => ({
      name: `${name}.obj`,
      mimeType: 'text/plain',
      buffer: Buffer.from(
        domeLines(3)
          .map((line) => line.replace(/^v (\S+)/, (_all, at) => `v ${Number(at) + x}`).replace('o dome', `o ${name}`))
          .join('\n'),
      ),
    });
    await page.getByLabel('Import files…').setInputFiles(obj('cap', 0));
    await page.getByLabel('into').selectOption({ label: 'a new kit' });
    await page.getByLabel('Name of the new kit').fill('Cap kit');
    await page.getByRole('button', { name: 'Import 1 piece' }).click();
    await page.getByRole('button', { name: /^Build for cap/ }).click();
    await expect(page.getByText(/^LODs of 1 piece built/)).toBeVisible();
    const lods = page
      .getByRole('row')
      .filter({ has: page.getByRole('button', { name: 'cap', exact: true }) })
      .getByRole('cell')
      .nth(2);
    await expect(lods).toHaveText('5');

    await page.getByLabel('Replace…').setInputFiles(obj('boulder', 5));
    await expect(page.getByLabel('boulder becomes').locator('option:checked')).toHaveText('cap');
    await expect(page.getByText('cap lies 5, 0, 0 m beside where it lies now, as its origin has moved.')).toBeVisible();
    await page.getByLabel('Move it back, so that placements stay where they are seen').uncheck();
    await checkAxe(page);
    await page.getByRole('button', { name: 'Import 1 piece' }).click();
    await expect(page.getByText(/^1 piece was imported into Cap kit/)).toBeVisible();
    await expect(lods).toHaveText('5');
    await page.goto(`${stravel.address}${DEMO}/findings`);
    const moved = page.getByText('cap lies 5, 0, 0 m beside where it lay before it was replaced');
    await expect(moved).toBeVisible();
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(moved).toHaveCount(0);

    await page.getByRole('link', { name: /^Detail/ }).click();
    await page.getByRole('button', { name: 'Cap kit' }).click();
    await page.getByRole('button', { name: 'cap', exact: true }).click();
    await page.keyboard.press('Delete');
    const dialog = page.getByRole('dialog');
    await expect(dialog).toContainText('Nothing uses it.');
    await dialog.getByRole('button', { name: 'Delete' }).click();
    await expect(page.getByText('cap was deleted.')).toBeVisible();
    await expect(page.getByText(/^No pieces yet/)).toBeVisible();
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(lods).toHaveText('5');

    await page.goto(`${stravel.address}${DEMO}/detail?piece=piece-sea-stack`);
    await page.getByRole('button', { name: 'Delete…' }).click();
    await expect(
      dialog
        .getByRole('listitem')
        .filter({ hasText: /: \d+ placements?/ })
        .first(),
    ).toBeVisible();
    await dialog.getByLabel('Replace it by').selectOption({ label: 'cap' });
    await dialog.getByRole('button', { name: 'Delete' }).click();
    await expect(page.getByText('sea stack was deleted.')).toBeVisible();
    await expect(page.getByRole('button', { name: 'sea stack', exact: true })).toHaveCount(0);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByRole('button', { name: 'sea stack', exact: true })).toBeVisible();
    // The next journey finds it again only where the undo has arrived.
    await expect(page.getByText('All changes saved')).toBeVisible();
  });

  test('takes a collision along that came with a piece, makes others, for one and for all, and undoes them', async ({
    quietPage: page,
    stravel,
  }) => {
    await introduce(page, stravel.address, '/detail');
    const lines = domeLines(3);
    const shell = lines.map((line) => line.replace('o dome', 'o dome-shell')).filter((line) => !line.startsWith('v'));
    const named = (pattern: string): Locator => page.getByRole('button', { name: pattern, exact: true });
    await page.getByLabel('Import files…').setInputFiles({
      name: 'dome.obj',
      mimeType: 'text/plain',
      buffer: Buffer.from([...lines, ...shell].join('\n')),
    });
    await expect(page.getByRole('cell', { name: 'dome-shell', exact: true })).toBeVisible();
    await named('{name}_collision*').click();
    const dialog = page.getByRole('dialog');
    await dialog.getByLabel('Named').fill('shell');
    await dialog.getByRole('button', { name: 'Save' }).click();
    await expect(dialog.getByRole('alert')).toContainText('A pattern has {name} once');
    await dialog.getByLabel('Named').fill('{name}-shell');
    await dialog.getByRole('button', { name: 'Save' }).click();
    await expect(named('{name}-shell')).toBeVisible();
    await expect(page.getByRole('listitem').filter({ hasText: 'is the collision of “dome”' })).toBeVisible();
    await page.getByLabel('into').selectOption({ label: 'Works kit' });
    await page.getByRole('button', { name: 'Import 1 piece' }).click();
    await expect(page.getByText('1 piece was imported into Works kit.')).toBeVisible();
    await page.getByRole('button', { name: 'dome', exact: true }).click();
    const shape = page.getByLabel('Collision', { exact: true });
    const row = page.getByRole('row').filter({ has: page.getByRole('button', { name: 'dome', exact: true }) });
    await expect(shape.locator('option:checked')).toHaveText('Own mesh');
    await checkAxe(page);

    await shape.selectOption('Hull');
    await expect(page.getByText('Collision of dome set.')).toBeVisible();
    await expect(page.getByRole('region', { name: 'LODs' })).toContainText('at most 64 corners');
    await page.reload();
    await page.getByRole('button', { name: 'Works kit' }).click();
    await page.getByRole('button', { name: 'dome', exact: true }).click();
    await expect(shape.locator('option:checked')).toHaveText('Hull');
    await expect(shape.getByRole('option', { name: 'Own mesh' })).toBeDisabled();
    await page.getByRole('button', { name: /^Set for all \d+$/ }).click();
    await expect(page.getByText(/^Collision of \d+ pieces set/)).toBeVisible();
    await expect(page.locator('tbody td:nth-child(6)').filter({ hasText: 'none' })).toHaveCount(0);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(row.getByRole('cell').nth(5)).toHaveText('Hull');
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(row.getByRole('cell').nth(5)).toHaveText('Own mesh');
    await expect(shape.locator('option:checked')).toHaveText('Own mesh');
    await expect(page.getByText('All changes saved')).toBeVisible();
  });

  test('changes from where steps show with the picture, and has no accessibility fault', async ({
    quietPage: page,
    stravel,
  }) => {
    await introduce(page, stravel.address, '/detail?piece=piece-sea-stack');
    await expect(page.getByRole('heading', { name: 'sea stack' })).toBeVisible();
    const from = page.getByRole('region', { name: 'LODs' }).getByRole('row').nth(2).getByRole('cell').nth(3);
    const before = parseFloat((await from.textContent()) ?? '');
    await page.getByLabel('error allowed, pixels').fill('2');
    await page.getByLabel('error allowed, pixels').press('Enter');
    await expect.poll(async () => parseFloat((await from.textContent()) ?? '') / before).toBeCloseTo(0.5, 1);
    await checkAxe(page);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect.poll(async () => parseFloat((await from.textContent()) ?? '')).toBe(before);
  });
});

test.describe('Pack', () => {
  test('checks, sends a finding to its place, packs, and the second time writes nothing', async ({
    quietPage: page,
    stravel,
  }) => {
    test.setTimeout(120000);
    await introduce(page, stravel.address, '/pack');
    await expect(page.getByText('Ready to pack.')).toBeVisible({ timeout: 20000 });
    await checkAxe(page);
    await page.getByRole('button', { name: /^Pack P/ }).click();
    const told = page.getByRole('region', { name: 'Last pack' });
    await expect(told).toBeVisible({ timeout: 90000 });
    await expect(told).toContainText('24, 3');
    const folder = join(stravel.dataFolder, 'packs/cinderbrine/console');
    const manifest = JSON.parse(readFileSync(join(folder, 'manifest.json'), 'utf8')) as {
      files: { path: string }[];
      levels: string[];
    };
    expect(manifest.levels).toHaveLength(24);
    for (const { path } of manifest.files) expect(existsSync(join(folder, path))).toBe(true);
    await page.getByRole('button', { name: /^Pack P/ }).click();
    await expect(told.getByText('files written').locator('xpath=following-sibling::dd[1]')).toHaveText('0', {
      timeout: 60000,
    });
    // Levels are left out by hand or by rule, and taken in again.
    await page.getByLabel('Pack Sorting Hall').uncheck();
    await page.getByRole('button', { name: /^Leave out \d+ not ready$/ }).click();
    await expect(page.getByRole('row').filter({ hasText: 'Cullet Yard' })).toContainText('left out');
    const out = await page.getByRole('row').filter({ hasText: 'left out' }).filter({ hasText: 'levels/' }).count();
    await page.getByRole('button', { name: /^Pack P/ }).click();
    await expect(told).toContainText(`${24 - out}, `, { timeout: 60000 });
    expect(existsSync(join(folder, 'levels/sorting-hall.json'))).toBe(false);
    await page.getByRole('button', { name: 'Include all again' }).click();
    await expect(page.getByText('left out', { exact: true })).toHaveCount(0);
    // A placement that was made in another unit.
    const huge = { id: 'huge', piece: 'piece-crate', position: [0, 0, 0], turn: [0, 0, 0], scale: [900, 1, 1] };
    const place = (before: unknown, after: unknown): Promise<number> =>
      stravel.edit([{ document: 'sorting-hall-structure', kind: 'placement', id: 'huge', field: null, before, after }]);
    expect(await place(null, huge)).toBe(201);
    await page.reload();
    const finding = page.getByRole('button', { name: /A placement of .* in Sorting Hall is scaled by 900/ });
    await expect(finding).toBeVisible({ timeout: 20000 });
    await expect(page.getByRole('button', { name: /^Pack P/ })).toBeDisabled();
    await finding.click();
    await expect(page).toHaveURL(/\/layout\/sorting-hall\?item=huge/);
    expect(await place(huge, null)).toBe(201);
  });
});
