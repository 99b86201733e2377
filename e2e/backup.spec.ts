import { expect, test } from '@playwright/test';
import { readFileSync, writeFileSync } from 'node:fs';
import { ownServer } from './ownServer';
import { watchErrors } from './support';

const own = ownServer(4);
test.beforeAll(async () => {
  test.setTimeout(240_000);
  await own.start();
});
test.afterAll(() => own.end());

const add = async (model: string) => {
  const record = { format: 'zugluft-record', formatVersion: 1, identity: { model } };
  const answer = await fetch(`${own.address}/api/machines`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ record }),
  });
  expect(answer.status).toBe(201);
};

test('all that is kept is saved by a button and restored by another; a damaged file restores nothing', async ({
  page,
}, info) => {
  const errors = watchErrors(page);
  await add('kept');
  await page.goto(`${own.address}/house-rules`);
  const backup = page.getByTestId('backup');
  const downloading = page.waitForEvent('download');
  await backup.getByRole('link', { name: 'Save a backup' }).click();
  const file = info.outputPath('all.tar');
  await (await downloading).saveAs(file);
  await add('later');

  const spoiled = readFileSync(file);
  spoiled[2000]! ^= 1;
  const broken = info.outputPath('broken.tar');
  writeFileSync(broken, spoiled);
  const choose = backup.getByLabel('a backup to restore');
  await choose.setInputFiles(broken);
  const dialog = page.getByRole('dialog', { name: 'Restore a backup' });
  await dialog.getByRole('button', { name: 'Restore it' }).click();
  await expect(backup.getByRole('alert')).toContainText(/Nothing was restored: .*damaged/);

  // asked first, and left as it is
  await choose.setInputFiles(file);
  await expect(dialog).toContainText('set aside');
  await dialog.getByRole('button', { name: 'Leave all as it is' }).click();
  await expect(dialog).toBeHidden();

  await choose.setInputFiles(file);
  await dialog.getByRole('button', { name: 'Restore it' }).click();
  await expect(page.getByTestId('restore-state')).toContainText(
    /1 machine and 0 files of .* are back and were compared/,
    { timeout: 60_000 },
  );
  await page.getByRole('link', { name: 'Library', exact: true }).click();
  await expect(page.getByTestId('library').getByRole('link', { name: /kept/ })).toBeVisible();
  await expect(page.getByTestId('library')).not.toContainText('later');
  // the refused file is the only thing the page complained of
  expect(errors.filter((e) => !/422/.test(e))).toEqual([]);
});
