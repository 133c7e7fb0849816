import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { checkAxe } from '../fixtures/check-axe';
import { expect, introduce, test } from '../fixtures/stravel';

test.describe('Targets', () => {
  test('are added, asked for names by a pattern, fixed with one undo, and packed side by side', async ({
    quietPage: page,
    stravel,
  }) => {
    test.setTimeout(180000);
    await introduce(page, stravel.address, '/pack');
    const chosen = page.getByRole('combobox', { name: 'Target' });
    const card = page.locator('sv-target-card');
    await expect(page.getByText('Ready to pack.')).toBeVisible({ timeout: 30000 });
    await page.getByRole('button', { name: 'New target' }).click();
    await expect(chosen.locator('option:checked')).toHaveText('New target');
    await card.getByLabel('Name of the target').fill('Tower build');
    await card.getByLabel('Name of the target').press('Enter');
    await expect(card.getByRole('alert')).toHaveText('There is a target called Tower build.');
    await card.getByLabel('Name of the target').fill('Small build');
    await card.getByLabel('Name of the target').press('Enter');
    await expect(chosen.locator('option:checked')).toHaveText('Small build');
    await card.getByLabel('Folder of the pack').fill('Console');
    await card.getByLabel('Folder of the pack').press('Enter');
    await expect(card.getByRole('alert')).toHaveText('Console build is packed into console: choose another folder.');
    await card.getByLabel('Folder of the pack').fill('small');
    await card.getByLabel('Folder of the pack').press('Enter');
    await expect(card.getByRole('alert')).toHaveCount(0);

    // A pattern that is none stays typed and says why; one that pieces do not follow makes errors.
    const pattern = card.getByLabel('Names of pieces, Pattern');
    await pattern.fill('[a-z');
    await pattern.press('Enter');
    await expect(card.getByRole('alert')).toContainText('Names of pieces: the pattern cannot be read');
    await expect(pattern).toHaveValue('[a-z');
    await pattern.fill('[a-z0-9_]+');
    await pattern.press('Enter');
    await card.getByLabel('Names of pieces', { exact: true }).click();
    const fix = page.getByRole('button', { name: /^Fix \(\d+\): rename pieces…$/ });
    await expect(fix).toBeVisible({ timeout: 30000 });
    await expect(page.getByRole('button', { name: /^Pack P/ })).toBeDisabled();
    await checkAxe(page);
    await fix.click();
    const dialog = page.getByRole('dialog');
    await expect(dialog.getByRole('listitem').filter({ hasText: 'Works kit: rail 4 m → rail_4_m' })).toBeVisible();
    await dialog.getByRole('button', { name: 'Cancel' }).click();
    await expect(fix).toBeVisible();
    await fix.click();
    await dialog.getByRole('button', { name: /^Fix/ }).click();
    await expect(page.getByText('Ready to pack.')).toBeVisible({ timeout: 60000 });
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(fix).toBeVisible({ timeout: 30000 });
    await page.getByRole('button', { name: 'Redo' }).click();
    await expect(page.getByText('Ready to pack.')).toBeVisible({ timeout: 60000 });

    // Placements as columns, and as JSON beside them.
    const placing = card.getByRole('combobox', { name: 'Placements' });
    await placing.selectOption('columns, within 1 mm');
    await card.getByLabel('too, in the level’s file').check();

    // Three packs, each in its folder: two with the meshes of each piece in a file.
    await page.getByRole('button', { name: 'Pack all targets (3)' }).click();
    await expect(page.getByRole('region', { name: 'Last pack 3' })).toBeVisible({ timeout: 120000 });
    const packs = join(stravel.dataFolder, 'packs/cinderbrine');
    const manifest = (folder: string): { target: object; files: { path: string }[] } =>
      JSON.parse(readFileSync(join(packs, folder, 'manifest.json'), 'utf8')) as never;
    expect(manifest('small').target).toMatchObject({ name: 'Small build', meshFiles: 'perPiece' });
    expect(existsSync(join(packs, 'small/kits/works-kit/rail-4-m.glb'))).toBe(true);
    expect(existsSync(join(packs, 'console/kits/works-kit.glb'))).toBe(true);
    const level = JSON.parse(readFileSync(join(packs, 'small/levels/low-water.json'), 'utf8')) as {
      chunks: { columns?: { file: string; withinMetres: number; placements: number }; placements?: unknown[] }[];
    };
    for (const { columns, placements = [] } of level.chunks) {
      expect(columns?.placements ?? 0).toBe(placements.length);
      if (columns) expect(existsSync(join(packs, 'small', columns.file))).toBe(true);
    }
    expect(level.chunks.map(({ columns }) => columns?.withinMetres)).toContain(0.001);
    expect(manifest('tower').files.map(({ path }) => path)).not.toContain('kits/works-kit.glb');

    await card.getByRole('button', { name: 'Delete' }).click();
    await expect(page.getByRole('button', { name: 'Pack all targets (2)' })).toBeVisible();
    await expect(chosen.locator('option:checked')).toHaveText('Console build');
    await expect(page.getByText('All changes saved')).toBeVisible();
  });
});
